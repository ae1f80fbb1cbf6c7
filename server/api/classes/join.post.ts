import { z } from 'zod'
import { joinClass } from '../../domain/classes/joining'
import { route } from '../../utils/route'

/** A student of the school joins a class by its code. */
export default route({
  right: 'student',
  body: z.strictObject({ code: z.string().max(60) }),
  handle: ({ db, person, body, address, now }) => joinClass(db, person, body.code, address, now),
})
