import { z } from 'zod'
import { setRemindersAt } from '../../domain/letters/reminders'
import { route } from '../../utils/route'

/** Calls reminders off, or wants them again, without signing in. */
export default route({
  right: 'anyone',
  params: z.object({ word: z.string().regex(/^[0-9a-f]{32}$/, 'This address leads nowhere.') }),
  body: z.strictObject({ on: z.boolean() }),
  handle: ({ db, params, body }) => setRemindersAt(db, params.word, body.on),
})
