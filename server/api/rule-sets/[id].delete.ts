import { z } from 'zod'
import { id } from '../../../core/question'
import { dropSet } from '../../domain/quizzes/rule-sets'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => dropSet(db, person, params.id, now),
})
