import { route } from './route'

export const vocabularyRoutes = {
  get: route<typeof import('~~/server/api/words/index.get')>('GET', 'words'),
  keep: route<typeof import('~~/server/api/words/index.put')>('PUT', 'words'),
}
