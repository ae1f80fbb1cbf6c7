import { route } from './route'

export const findRoutes = {
  find: route<typeof import('~~/server/api/find.get')>('GET', 'find'),
}
