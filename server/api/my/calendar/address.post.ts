import { makeCalendarAddress } from '../../../domain/people/calendar'
import { route } from '../../../utils/route'

/** An address to subscribe to; the one before is over. */
export default route({
  right: 'signedIn',
  handle: ({ db, person, now }) => makeCalendarAddress(db, person, now),
})
