import { z } from 'zod'
import { id } from '../../../../core/question'
import { beginBreak } from '../../../domain/sittings/breaks'
import { route } from '../../../utils/route'

/** A break begins: the clock stops, and the questions are covered until it ends. */
export default route({
  right: 'student',
  params: z.object({ id }),
  body: z.strictObject({ lease: z.int().min(1) }),
  handle: ({ db, person, params, body, now }) => beginBreak(db, person.id, params.id, body.lease, now),
})
