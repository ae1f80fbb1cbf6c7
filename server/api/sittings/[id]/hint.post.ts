import { z } from 'zod'
import { id } from '../../../../core/question'
import { giveHint, hintRequest } from '../../../domain/sittings/working'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  body: hintRequest,
  handle: ({ db, person, params, body, now }) => giveHint(db, person.id, params.id, body, now),
})
