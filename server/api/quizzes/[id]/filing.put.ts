import { z } from 'zod'
import { id } from '../../../../core/question'
import { fileQuiz, filingChange } from '../../../domain/quizzes/filing'
import { route } from '../../../utils/route'

/** How a quiz is described, filed and shared with the school. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: filingChange,
  handle: ({ db, person, params, body, now }) => fileQuiz(db, person, params.id, body, now),
})
