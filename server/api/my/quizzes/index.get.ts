import { myQuizzes } from '../../../domain/sittings/my-quizzes'
import { route } from '../../../utils/route'

export default route({ right: 'student', handle: ({ db, person, now }) => myQuizzes(db, person, now) })
