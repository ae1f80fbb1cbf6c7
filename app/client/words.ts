import { route } from './route'

export const wordRoutes = {
  get: route<typeof import('~~/server/api/words/index.get')>('GET', 'words'),
  keep: route<typeof import('~~/server/api/words/index.put')>('PUT', 'words'),
}
