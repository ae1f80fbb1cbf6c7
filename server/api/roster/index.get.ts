import { listTaken } from '../../domain/roster/undo'
import { route } from '../../utils/route'

export default route({ right: 'admin', handle: ({ db, person }) => listTaken(db, person) })
