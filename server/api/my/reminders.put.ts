import { z } from 'zod'
import { setOwnReminders } from '../../domain/letters/reminders'
import { route } from '../../utils/route'

export default route({
  right: 'student',
  body: z.strictObject({ on: z.boolean() }),
  handle: ({ db, person, body }) => setOwnReminders(db, person.id, body.on),
})
