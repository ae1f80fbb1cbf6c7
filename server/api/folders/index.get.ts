import { listFolders } from '../../domain/bank/describing/folders'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => listFolders(db, person) })
