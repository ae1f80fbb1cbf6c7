import { route } from './route'

export const folderRoutes = {
  remove: route<typeof import('~~/server/api/folders/[id].delete')>('DELETE', 'folders/[id]'),
  change: route<typeof import('~~/server/api/folders/[id].put')>('PUT', 'folders/[id]'),
  list: route<typeof import('~~/server/api/folders/index.get')>('GET', 'folders'),
  add: route<typeof import('~~/server/api/folders/index.post')>('POST', 'folders'),
}
