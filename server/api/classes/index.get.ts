import { listClasses } from '../../domain/classes/classes'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => listClasses(db, person) })
