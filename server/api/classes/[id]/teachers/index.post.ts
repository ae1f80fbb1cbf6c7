import { z } from 'zod'
import { id } from '../../../../../core/question'
import { setTeacher } from '../../../../domain/classes/teachers'
import { route } from '../../../../utils/route'

export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  body: z.strictObject({
    email: z.string().trim().min(1, 'Give the e-mail address of a colleague.').max(190),
    may: z.enum(['teach', 'help']),
  }),
  handle: ({ db, person, params, body, now }) => setTeacher(db, person, params.id, body, now),
})
