import { myQuizzes } from '../../../domain/sittings/my-quizzes'
import { afterSome } from '../../../utils/pages'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  query: afterSome,
  handle: ({ db, person, now, query }) => myQuizzes(db, person, now, query.after),
})
