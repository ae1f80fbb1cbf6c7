import { route } from './route'

export const rosterRoutes = {
  look: route<typeof import('~~/server/api/roster/look.post')>('POST', 'roster/look', 60_000),
  take: route<typeof import('~~/server/api/roster/index.post')>('POST', 'roster', 120_000),
  taken: route<typeof import('~~/server/api/roster/index.get')>('GET', 'roster'),
  undo: route<typeof import('~~/server/api/roster/[id]/undo.post')>('POST', 'roster/[id]/undo', 120_000),
}
