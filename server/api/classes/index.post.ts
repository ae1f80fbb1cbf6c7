import { z } from 'zod'
import { id } from '../../../core/question'
import { className, makeClass } from '../../domain/classes/keeping'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: z.strictObject({ name: className, term: id.nullable().optional() }),
  handle: ({ db, person, body, now }) => makeClass(db, person, body, now),
})
