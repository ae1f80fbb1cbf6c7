import { listQuizzes } from '../../domain/quizzes/quizzes'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person, now }) => listQuizzes(db, person, now) })
