import { z } from 'zod'
import { calendarAt } from '../../domain/people/calendar'
import { sendFile } from '../../utils/send-file'
import { route } from '../../utils/route'

/** A calendar that somebody subscribes to: the address is the right. */
export default route({
  right: 'anyone',
  params: z.object({ token: z.string().regex(/^[\w-]{43}$/, 'This is no address of a calendar.') }),
  handle: async ({ event, db, params, now }) => sendFile(event, await calendarAt(db, params.token, now)),
})
