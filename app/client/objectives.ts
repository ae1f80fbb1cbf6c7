import { route } from './route'

export const objectiveRoutes = {
  remove: route<typeof import('~~/server/api/objectives/[id].delete')>('DELETE', 'objectives/[id]'),
  change: route<typeof import('~~/server/api/objectives/[id].put')>('PUT', 'objectives/[id]'),
  bringIn: route<typeof import('~~/server/api/objectives/import.post')>('POST', 'objectives/import'),
  list: route<typeof import('~~/server/api/objectives/index.get')>('GET', 'objectives'),
  add: route<typeof import('~~/server/api/objectives/index.post')>('POST', 'objectives'),
  look: route<typeof import('~~/server/api/objectives/look.post')>('POST', 'objectives/look'),
}
