import { route } from './route'

/** What who runs the school does: its people, terms, name and zone; and what it is laid out with at first. */
export const schoolRoutes = {
  firstStart: route<typeof import('~~/server/api/first-start/index.get')>('GET', 'first-start'),
  layOut: route<typeof import('~~/server/api/first-start/index.post')>('POST', 'first-start'),
  change: route<typeof import('~~/server/api/school/index.put')>('PUT', 'school'),
  people: route<typeof import('~~/server/api/people/index.get')>('GET', 'people'),
  addTeacher: route<typeof import('~~/server/api/people/index.post')>('POST', 'people'),
  changePerson: route<typeof import('~~/server/api/people/[id]/index.put')>('PUT', 'people/[id]'),
  link: route<typeof import('~~/server/api/people/[id]/link.post')>('POST', 'people/[id]/link'),
  makeNameless: route<typeof import('~~/server/api/people/[id]/nameless/index.post')>('POST', 'people/[id]/nameless'),
  giveNameBack: route<typeof import('~~/server/api/people/[id]/nameless/index.delete')>(
    'DELETE',
    'people/[id]/nameless',
  ),
  terms: route<typeof import('~~/server/api/terms/index.get')>('GET', 'terms'),
  makeTerm: route<typeof import('~~/server/api/terms/index.post')>('POST', 'terms'),
  keepTerm: route<typeof import('~~/server/api/terms/[id].put')>('PUT', 'terms/[id]'),
  dropTerm: route<typeof import('~~/server/api/terms/[id].delete')>('DELETE', 'terms/[id]'),
  scales: route<typeof import('~~/server/api/scales/index.get')>('GET', 'scales'),
  makeScale: route<typeof import('~~/server/api/scales/index.post')>('POST', 'scales'),
  keepScale: route<typeof import('~~/server/api/scales/[id].put')>('PUT', 'scales/[id]'),
  dropScale: route<typeof import('~~/server/api/scales/[id].delete')>('DELETE', 'scales/[id]'),
  fields: route<typeof import('~~/server/api/fields/index.get')>('GET', 'fields'),
  makeField: route<typeof import('~~/server/api/fields/index.post')>('POST', 'fields'),
  keepField: route<typeof import('~~/server/api/fields/[id].put')>('PUT', 'fields/[id]'),
  dropField: route<typeof import('~~/server/api/fields/[id].delete')>('DELETE', 'fields/[id]'),
  mail: route<typeof import('~~/server/api/mail/index.get')>('GET', 'mail'),
}
