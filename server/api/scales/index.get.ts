import { listScales } from '../../domain/people/scales'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => listScales(db, person.school) })
