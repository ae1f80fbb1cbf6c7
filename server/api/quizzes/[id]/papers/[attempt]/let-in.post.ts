import { z } from 'zod'
import { id } from '../../../../../../core/question'
import { letIn } from '../../../../../domain/sittings/let-in'
import { route } from '../../../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id, attempt: id }),
  handle: ({ db, person, params, now }) => letIn(db, person, params.id, params.attempt, now),
})
