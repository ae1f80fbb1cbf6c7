import { z } from 'zod'
import { id } from '../../../../core/question'
import { checkAnswer, checkRequest } from '../../../domain/sittings/working'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  body: checkRequest,
  handle: ({ db, person, params, body, now }) => checkAnswer(db, person.id, params.id, body.lease, body.answer, now),
})
