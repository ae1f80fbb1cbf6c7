import { z } from 'zod'
import { id } from '../../../../core/question'
import { setAddress } from '../../../domain/quizzes/filing'
import { route } from '../../../utils/route'

/** An address by which others may look at a quiz, or none any more. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({ on: z.boolean() }),
  handle: ({ db, person, params, body, now }) => setAddress(db, person, params.id, body.on, now),
})
