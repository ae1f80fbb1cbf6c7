import { route } from './route'

export const classRoutes = {
  list: route<typeof import('~~/server/api/classes/index.get')>('GET', 'classes'),
  make: route<typeof import('~~/server/api/classes/index.post')>('POST', 'classes'),
  register: route<typeof import('~~/server/api/classes/[id]/index.get')>('GET', 'classes/[id]'),
  change: route<typeof import('~~/server/api/classes/[id]/index.put')>('PUT', 'classes/[id]'),
  renewCode: route<typeof import('~~/server/api/classes/[id]/code.post')>('POST', 'classes/[id]/code'),
  endCode: route<typeof import('~~/server/api/classes/[id]/code.delete')>('DELETE', 'classes/[id]/code'),
  add: route<typeof import('~~/server/api/classes/[id]/students/index.post')>('POST', 'classes/[id]/students', 60_000),
  takeOut: route<typeof import('~~/server/api/classes/[id]/students/out.post')>('POST', 'classes/[id]/students/out'),
  bringBack: route<typeof import('~~/server/api/classes/[id]/students/back.post')>(
    'POST',
    'classes/[id]/students/back',
  ),
  move: route<typeof import('~~/server/api/classes/[id]/students/move.post')>('POST', 'classes/[id]/students/move'),
  setNeed: route<typeof import('~~/server/api/classes/[id]/students/need.put')>('PUT', 'classes/[id]/students/need'),
  setTeacher: route<typeof import('~~/server/api/classes/[id]/teachers/index.post')>('POST', 'classes/[id]/teachers'),
  takeTeacherOut: route<typeof import('~~/server/api/classes/[id]/teachers/[teacher].delete')>(
    'DELETE',
    'classes/[id]/teachers/[teacher]',
  ),
  makeGroup: route<typeof import('~~/server/api/classes/[id]/groups/index.post')>('POST', 'classes/[id]/groups'),
  keepGroup: route<typeof import('~~/server/api/classes/[id]/groups/[group]/index.put')>(
    'PUT',
    'classes/[id]/groups/[group]',
  ),
  dropGroup: route<typeof import('~~/server/api/classes/[id]/groups/[group]/index.delete')>(
    'DELETE',
    'classes/[id]/groups/[group]',
  ),
  setGroupNeed: route<typeof import('~~/server/api/classes/[id]/groups/[group]/accommodation.put')>(
    'PUT',
    'classes/[id]/groups/[group]/accommodation',
  ),
  takeClaimBack: route<typeof import('~~/server/api/classes/[id]/students/unclaim.post')>(
    'POST',
    'classes/[id]/students/unclaim',
  ),
  lookAtCode: route<typeof import('~~/server/api/classes/code.post')>('POST', 'classes/code'),
  join: route<typeof import('~~/server/api/classes/join.post')>('POST', 'classes/join'),
  joinAsNew: route<typeof import('~~/server/api/classes/newcomer.post')>('POST', 'classes/newcomer'),
}
