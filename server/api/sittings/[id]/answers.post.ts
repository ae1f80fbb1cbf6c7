import { z } from 'zod'
import { id } from '../../../../core/question'
import { saveAnswers, saveRequest } from '../../../domain/sittings/save'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  body: saveRequest,
  handle: ({ db, person, params, body, now }) => saveAnswers(db, person.id, params.id, body.lease, body.answers, now),
})
