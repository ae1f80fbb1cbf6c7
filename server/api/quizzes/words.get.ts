import { quizWords } from '../../domain/quizzes/list'
import { route } from '../../utils/route'

/** Terms and tags that are in use. */
export default route({ right: 'teacher', handle: ({ db, person }) => quizWords(db, person) })
