import { z } from 'zod'
import { remindersAt } from '../../domain/letters/reminders'
import { route } from '../../utils/route'

/** Whether reminders are on for whoever has this word in their letters. */
export default route({
  right: 'anyone',
  params: z.object({ word: z.string().regex(/^[0-9a-f]{32}$/, 'This address leads nowhere.') }),
  handle: ({ db, params }) => remindersAt(db, params.word),
})
