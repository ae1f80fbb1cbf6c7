import { route } from './route'

export const myRoutes = {
  before: route<typeof import('~~/server/api/my/quizzes/[id]/index.get')>('GET', 'my/quizzes/[id]'),
  start: route<typeof import('~~/server/api/my/quizzes/[id]/start.post')>('POST', 'my/quizzes/[id]/start'),
  list: route<typeof import('~~/server/api/my/quizzes/index.get')>('GET', 'my/quizzes'),
}
