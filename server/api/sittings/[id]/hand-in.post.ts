import { z } from 'zod'
import { id } from '../../../../core/question'
import { handIn, handInLimit, handInRequest } from '../../../domain/sittings/hand-in'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  body: handInRequest,
  most: handInLimit,
  handle: ({ db, person, params, body, now }) => handIn(db, person.id, params.id, body.lease, body.answers, now),
})
