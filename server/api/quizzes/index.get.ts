import { listQuizzes } from '../../domain/quizzes/quizzes'
import { afterSome } from '../../utils/pages'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  query: afterSome,
  handle: ({ db, person, now, query }) => listQuizzes(db, person, now, query.after),
})
