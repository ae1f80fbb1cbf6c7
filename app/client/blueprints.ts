import { route } from './route'

export const blueprintRoutes = {
  list: route<typeof import('~~/server/api/blueprints/index.get')>('GET', 'blueprints'),
  keep: route<typeof import('~~/server/api/blueprints/index.post')>('POST', 'blueprints'),
  change: route<typeof import('~~/server/api/blueprints/[id].put')>('PUT', 'blueprints/[id]'),
  drop: route<typeof import('~~/server/api/blueprints/[id].delete')>('DELETE', 'blueprints/[id]'),
  sorts: route<typeof import('~~/server/api/quizzes/[id]/sorts.get')>('GET', 'quizzes/[id]/sorts'),
  propose: route<typeof import('~~/server/api/quizzes/[id]/proposal.post')>('POST', 'quizzes/[id]/proposal', 90_000),
}
