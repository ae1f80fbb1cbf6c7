import { route } from './route'

export const stimulusRoutes = {
  remove: route<typeof import('~~/server/api/stimuli/[id].delete')>('DELETE', 'stimuli/[id]'),
  get: route<typeof import('~~/server/api/stimuli/[id].get')>('GET', 'stimuli/[id]'),
  change: route<typeof import('~~/server/api/stimuli/[id].put')>('PUT', 'stimuli/[id]'),
  list: route<typeof import('~~/server/api/stimuli/index.get')>('GET', 'stimuli'),
  add: route<typeof import('~~/server/api/stimuli/index.post')>('POST', 'stimuli'),
}
