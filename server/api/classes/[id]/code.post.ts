import { z } from 'zod'
import { id } from '../../../../core/question'
import { mostDays, renewCode, usualDays } from '../../../domain/classes/join-codes'
import { route } from '../../../utils/route'

export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  body: z.strictObject({
    days: z.int().min(1).max(mostDays, `A code goes on for at most ${mostDays} days.`).default(usualDays),
  }),
  handle: ({ db, person, params, body, now }) => renewCode(db, person, params.id, body.days, now),
})
