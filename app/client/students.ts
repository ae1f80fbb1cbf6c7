import { route } from './route'

export const studentRoutes = {
  byAddress: route<typeof import('~~/server/api/students/by-address.post')>('POST', 'students/by-address'),
  page: route<typeof import('~~/server/api/students/[id]/index.get')>('GET', 'students/[id]'),
  setAccommodation: route<typeof import('~~/server/api/students/[id]/accommodation.put')>(
    'PUT',
    'students/[id]/accommodation',
  ),
  keepFields: route<typeof import('~~/server/api/students/[id]/fields.put')>('PUT', 'students/[id]/fields'),
  link: route<typeof import('~~/server/api/students/[id]/link.post')>('POST', 'students/[id]/link'),
}
