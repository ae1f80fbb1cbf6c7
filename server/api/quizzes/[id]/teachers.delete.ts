import { z } from 'zod'
import { id } from '../../../../core/question'
import { unshareQuiz } from '../../../domain/quizzes/quizzes'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  query: z.object({ person: id }),
  handle: ({ db, person, params, query, now }) => unshareQuiz(db, person, params.id, query.person, now),
})
