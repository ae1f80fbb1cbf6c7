import { listFields } from '../../domain/people/own-fields'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => listFields(db, person.school) })
