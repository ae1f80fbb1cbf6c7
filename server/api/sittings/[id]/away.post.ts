import { z } from 'zod'
import { id } from '../../../../core/question'
import { noteAway, awayRequest } from '../../../domain/sittings/away'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  body: awayRequest,
  handle: ({ db, person, params, body, now }) => noteAway(db, person.id, params.id, body, now),
})
