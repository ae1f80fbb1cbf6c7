import { endCalendarAddress } from '../../../domain/people/calendar'
import { route } from '../../../utils/route'

export default route({
  right: 'signedIn',
  async handle({ db, person, now }) {
    await endCalendarAddress(db, person, now)
    return { ended: true }
  },
})
