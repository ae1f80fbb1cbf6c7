import { loadSchoolWords } from '../../domain/bank/school-words'
import { route } from '../../utils/route'

/** Thinking levels, own fields and grade levels of the school. */
export default route({ right: 'teacher', handle: ({ db, person }) => loadSchoolWords(db, person) })
