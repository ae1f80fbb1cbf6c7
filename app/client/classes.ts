import { route } from './route'

export const classRoutes = {
  roster: route<typeof import('~~/server/api/classes/[id].get')>('GET', 'classes/[id]'),
  list: route<typeof import('~~/server/api/classes/index.get')>('GET', 'classes'),
}
