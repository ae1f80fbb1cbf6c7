import { z } from 'zod'
import { id } from '../../../../core/question'
import { answerCorrection } from '../../../domain/bank/outside/outside'
import { route } from '../../../utils/route'

/** Takes a keeper's correction over, or leaves it. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: z.strictObject({ take: z.boolean() }),
  handle: ({ db, person, params, body, now }) => answerCorrection(db, person, params.id, body.take, now),
})
