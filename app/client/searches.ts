import { route } from './route'

export const searchRoutes = {
  remove: route<typeof import('~~/server/api/searches/[id].delete')>('DELETE', 'searches/[id]'),
  list: route<typeof import('~~/server/api/searches/index.get')>('GET', 'searches'),
  add: route<typeof import('~~/server/api/searches/index.post')>('POST', 'searches'),
}
