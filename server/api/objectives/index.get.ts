import { listObjectives } from '../../domain/bank/describing/objectives'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => listObjectives(db, person) })
