import { z } from 'zod'
import { comeByAddress } from '../../domain/quizzes/filing'
import { route } from '../../utils/route'

/** Lets in whoever has the address of a quiz, to look at it. */
export default route({
  right: 'teacher',
  body: z.strictObject({ address: z.string().regex(/^[0-9a-f]{32}$/, 'This is no address of a quiz.') }),
  handle: ({ db, person, body, now }) => comeByAddress(db, person, body.address, now),
})
