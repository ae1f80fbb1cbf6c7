import { route } from './route'

export const quizRoutes = {
  aside: route<typeof import('~~/server/api/quizzes/[id]/aside.put')>('PUT', 'quizzes/[id]/aside'),
  checks: route<typeof import('~~/server/api/quizzes/[id]/checks.get')>('GET', 'quizzes/[id]/checks'),
  closing: route<typeof import('~~/server/api/quizzes/[id]/close.get')>('GET', 'quizzes/[id]/close'),
  closeNow: route<typeof import('~~/server/api/quizzes/[id]/close.post')>('POST', 'quizzes/[id]/close'),
  copy: route<typeof import('~~/server/api/quizzes/[id]/copy.post')>('POST', 'quizzes/[id]/copy'),
  changes: route<typeof import('~~/server/api/quizzes/[id]/edits.get')>('GET', 'quizzes/[id]/edits'),
  edit: route<typeof import('~~/server/api/quizzes/[id]/edits.post')>('POST', 'quizzes/[id]/edits'),
  get: route<typeof import('~~/server/api/quizzes/[id]/index.get')>('GET', 'quizzes/[id]'),
  paper: route<typeof import('~~/server/api/quizzes/[id]/marks/[attempt].get')>('GET', 'quizzes/[id]/marks/[attempt]'),
  giveMark: route<typeof import('~~/server/api/quizzes/[id]/marks/[attempt].put')>(
    'PUT',
    'quizzes/[id]/marks/[attempt]',
  ),
  marks: route<typeof import('~~/server/api/quizzes/[id]/marks/index.get')>('GET', 'quizzes/[id]/marks'),
  open: route<typeof import('~~/server/api/quizzes/[id]/open.post')>('POST', 'quizzes/[id]/open'),
  here: route<typeof import('~~/server/api/quizzes/[id]/here.put')>('PUT', 'quizzes/[id]/here'),
  history: route<typeof import('~~/server/api/quizzes/[id]/history.get')>('GET', 'quizzes/[id]/history'),
  earlier: route<typeof import('~~/server/api/quizzes/[id]/history/[revision].get')>(
    'GET',
    'quizzes/[id]/history/[revision]',
  ),
  judges: route<typeof import('~~/server/api/quizzes/[id]/ratings.get')>('GET', 'quizzes/[id]/ratings'),
  rate: route<typeof import('~~/server/api/quizzes/[id]/ratings.put')>('PUT', 'quizzes/[id]/ratings'),
  release: route<typeof import('~~/server/api/quizzes/[id]/release.put')>('PUT', 'quizzes/[id]/release'),
  setState: route<typeof import('~~/server/api/quizzes/[id]/state.put')>('PUT', 'quizzes/[id]/state'),
  unshare: route<typeof import('~~/server/api/quizzes/[id]/teachers.delete')>('DELETE', 'quizzes/[id]/teachers'),
  share: route<typeof import('~~/server/api/quizzes/[id]/teachers.post')>('POST', 'quizzes/[id]/teachers'),
  list: route<typeof import('~~/server/api/quizzes/index.get')>('GET', 'quizzes'),
  add: route<typeof import('~~/server/api/quizzes/index.post')>('POST', 'quizzes'),
}
