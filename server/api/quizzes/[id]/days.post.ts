import { z } from 'zod'
import { id } from '../../../../core/question'
import { sendDays } from '../../../domain/letters/days'
import { route } from '../../../utils/route'

/** Sends a student what they will see of the quiz, and when. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({ student: id }),
  handle: ({ db, person, params, body, now }) => sendDays(db, person, params.id, body.student, now),
})
