import { z } from 'zod'
import { id } from '../../../../core/question'
import { handIn } from '../../../domain/sittings/hand-in'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  body: z.strictObject({ lease: z.int().min(1) }),
  handle: ({ db, person, params, body, now }) => handIn(db, person.id, params.id, body.lease, now),
})
