import { listTerms } from '../../domain/classes/terms'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => listTerms(db, person.school) })
