import { route } from './route'

export const importRoutes = {
  undo: route<typeof import('~~/server/api/imports/[id]/index.delete')>('DELETE', 'imports/[id]'),
  get: route<typeof import('~~/server/api/imports/[id]/index.get')>('GET', 'imports/[id]'),
  question: route<typeof import('~~/server/api/imports/[id]/items/[index].get')>('GET', 'imports/[id]/items/[index]'),
  progress: route<typeof import('~~/server/api/imports/[id]/progress.get')>('GET', 'imports/[id]/progress'),
  stop: route<typeof import('~~/server/api/imports/[id]/stop.post')>('POST', 'imports/[id]/stop'),
  take: route<typeof import('~~/server/api/imports/[id]/take.post')>('POST', 'imports/[id]/take'),
  stage: route<typeof import('~~/server/api/imports/index.post')>('POST', 'imports'),
  pasted: route<typeof import('~~/server/api/imports/pasted.post')>('POST', 'imports/pasted'),
  look: route<typeof import('~~/server/api/imports/look.post')>('POST', 'imports/look'),
}
