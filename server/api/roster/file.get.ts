import { z } from 'zod'
import { giveRoster, rosterForms } from '../../domain/roster/give'
import { sendFile } from '../../utils/send-file'
import { route } from '../../utils/route'

/** The school's roster as a file. */
export default route({
  right: 'admin',
  query: z.object({ as: z.enum(rosterForms) }),
  handle: async ({ event, db, person, query, now }) =>
    sendFile(event, await giveRoster(db, person, query.as, null, now)),
})
