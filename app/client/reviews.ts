import { route } from './route'

export const reviewRoutes = {
  get: route<typeof import('~~/server/api/reviews/[id].get')>('GET', 'reviews/[id]'),
}
