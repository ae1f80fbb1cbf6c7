import { route } from './route'

export const mediaRoutes = {
  add: route<typeof import('~~/server/api/media/index.post')>('POST', 'media'),
}
