import { z } from 'zod'
import { id, question } from '../../../../core/question'
import { reviseQuestion } from '../../../domain/bank/questions/questions'
import { route } from '../../../utils/route'

/** A change makes a new version. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: z.strictObject({ on: z.int().min(1), question }),
  handle: ({ db, person, params, body, now }) => reviseQuestion(db, person, params.id, body.on, body.question, now),
})
