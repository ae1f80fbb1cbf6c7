import { z } from 'zod'
import { id } from '../../../../core/question'
import { setAside } from '../../../domain/quizzes/checks'
import { route } from '../../../utils/route'

const code = z.string().regex(/^[a-zA-Z0-9:_-]{1,120}$/, 'This is no check that Thistle makes.')

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({
    code,
    reason: z
      .string()
      .trim()
      .min(1, 'Say why, in a few words.')
      .max(400, 'A reason has at most 400 characters.')
      .nullable(),
  }),
  handle: ({ db, person, params, body, now }) => setAside(db, person, params.id, body, now),
})
