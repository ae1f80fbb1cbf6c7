import { z } from 'zod'
import { id } from '../../../../core/question'
import { keepNote, noteRequest } from '../../../domain/sittings/notes'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  body: noteRequest,
  handle: ({ db, person, params, body, now }) => keepNote(db, person.id, params.id, body, now),
})
