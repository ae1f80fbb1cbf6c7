import { listSets } from '../../domain/quizzes/rule-sets'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => listSets(db, person) })
