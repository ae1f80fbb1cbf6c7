import { z } from 'zod'
import { id } from '../../../../core/question'
import { content } from '../../../../core/quiz'
import { copyQuiz } from '../../../domain/quizzes/copy'
import { route } from '../../../utils/route'

export default route({
  right: 'quizReader',
  params: z.object({ id }),
  body: z.strictObject({
    title: content.shape.title,
    withRules: z.boolean(),
    /** The term that it is filed under; as the quiz is, where none is said. */
    term: z.string().trim().max(60, 'A term’s name has at most 60 characters.').optional(),
    days: z.int().min(-3660, 'Move it by at most ten years.').max(3660, 'Move it by at most ten years.'),
  }),
  handle: ({ db, person, params, body, now }) => copyQuiz(db, person, params.id, body, now),
})
