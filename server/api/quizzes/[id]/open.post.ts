import { z } from 'zod'
import { id } from '../../../../core/question'
import { openQuiz } from '../../../domain/quizzes/open'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => openQuiz(db, person, params.id, now),
})
