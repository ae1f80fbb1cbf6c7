import { route } from './route'

export const fileRoutes = {
  formats: route<typeof import('~~/server/api/files/formats.get')>('GET', 'files/formats'),
}
