import { z } from 'zod'
import { id } from '../../../../core/question'
import { unshareQuiz } from '../../../domain/quizzes/quizzes'
import { route } from '../../../utils/route'

/** Takes a colleague out of a quiz; whoever was let in leaves it so, also who may only look. */
export default route({
  right: 'quizReader',
  params: z.object({ id }),
  query: z.object({ person: id }),
  handle: ({ db, person, params, query, now }) => unshareQuiz(db, person, params.id, query.person, now),
})
