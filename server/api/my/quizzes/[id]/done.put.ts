import { z } from 'zod'
import { id } from '../../../../../core/question'
import { confirmDone } from '../../../../domain/sittings/confirm'
import { route } from '../../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  body: z.strictObject({ done: z.boolean() }),
  handle: ({ db, person, params, body, now }) => confirmDone(db, person, params.id, body.done, now),
})
