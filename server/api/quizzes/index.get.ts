import { listQuizzes, quizQuery } from '../../domain/quizzes/list'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  query: quizQuery,
  handle: ({ db, person, now, query }) => listQuizzes(db, person, now, query),
})
