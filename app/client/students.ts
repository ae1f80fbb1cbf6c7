import { route } from './route'

export const studentRoutes = {
  setAccommodation: route<typeof import('~~/server/api/students/[id]/accommodation.put')>(
    'PUT',
    'students/[id]/accommodation',
  ),
}
