import { z } from 'zod'
import { id } from '../../../../core/question'
import { moveOn } from '../../../domain/sittings/sitting'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  body: z.strictObject({ lease: z.int().min(1), page: z.int().min(0).max(1000) }),
  handle: ({ db, person, params, body, now }) => moveOn(db, person.id, params.id, body.lease, body.page, now),
})
