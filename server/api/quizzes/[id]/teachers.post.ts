import { z } from 'zod'
import { id } from '../../../../core/question'
import { shareQuiz } from '../../../domain/quizzes/quizzes'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({
    email: z.string().trim().min(1, 'Give the e-mail address of a colleague.').max(190),
    mayShare: z.boolean().default(false),
    may: z.enum(['read', 'write']).default('write'),
  }),
  handle: ({ db, person, params, body, now }) => shareQuiz(db, person, params.id, body, now),
})
