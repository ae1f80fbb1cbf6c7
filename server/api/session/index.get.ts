import { currentSession } from '../../people/current-session'
import { route } from '../../utils/route'

/** Who is signed in, the school, and the server's time. */
export default route({ right: 'anyone', handle: ({ db, person, now }) => currentSession(db, person, now) })
