import { openDoubts } from '../../domain/bank/questions/remarks'
import { route } from '../../utils/route'

/** One's own questions of which a colleague says that something is wrong. */
export default route({ right: 'teacher', handle: ({ db, person }) => openDoubts(db, person) })
