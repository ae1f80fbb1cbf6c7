import { route } from './route'

export const sittingRoutes = {
  save: route<typeof import('~~/server/api/sittings/[id]/answers.post')>('POST', 'sittings/[id]/answers'),
  clock: route<typeof import('~~/server/api/sittings/[id]/clock.get')>('GET', 'sittings/[id]/clock'),
  handIn: route<typeof import('~~/server/api/sittings/[id]/hand-in.post')>('POST', 'sittings/[id]/hand-in'),
  check: route<typeof import('~~/server/api/sittings/[id]/check.post')>('POST', 'sittings/[id]/check'),
  hint: route<typeof import('~~/server/api/sittings/[id]/hint.post')>('POST', 'sittings/[id]/hint'),
  notes: route<typeof import('~~/server/api/sittings/[id]/notes.put')>('PUT', 'sittings/[id]/notes'),
  away: route<typeof import('~~/server/api/sittings/[id]/away.post')>('POST', 'sittings/[id]/away'),
  again: route<typeof import('~~/server/api/sittings/[id]/again.post')>('POST', 'sittings/[id]/again'),
  open: route<typeof import('~~/server/api/sittings/[id]/open.post')>('POST', 'sittings/[id]/open'),
  enter: route<typeof import('~~/server/api/sittings/[id]/section.post')>('POST', 'sittings/[id]/section'),
  beginBreak: route<typeof import('~~/server/api/sittings/[id]/break.post')>('POST', 'sittings/[id]/break'),
  endBreak: route<typeof import('~~/server/api/sittings/[id]/break.delete')>('DELETE', 'sittings/[id]/break'),
  moveOn: route<typeof import('~~/server/api/sittings/[id]/page.post')>('POST', 'sittings/[id]/page'),
  keepRecording: route<typeof import('~~/server/api/sittings/[id]/recordings.post')>(
    'POST',
    'sittings/[id]/recordings',
  ),
}
