import { listBlueprints } from '../../domain/blueprints/keep'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => listBlueprints(db, person) })
