import { calendarOf } from '../../../domain/people/calendar'
import { sendFile } from '../../../utils/send-file'
import { route } from '../../../utils/route'

/** One's quizzes as a calendar file. */
export default route({
  right: 'signedIn',
  handle: async ({ event, db, person, now }) => sendFile(event, await calendarOf(db, person, now)),
})
