import { currentSession } from '../../people/current-session'
import { renewCookie } from '../../people/session-cookie'
import { route } from '../../utils/route'

/** Who is signed in, the school, and the server's time. */
export default route({
  right: 'anyone',
  handle({ event, db, person, now }) {
    if (person) renewCookie(event)
    return currentSession(db, person, now)
  },
})
