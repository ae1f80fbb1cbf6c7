import { z } from 'zod'
import { id } from '../../../core/question'
import { keepSet, ruleSetSpec } from '../../domain/quizzes/rule-sets'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: ruleSetSpec,
  handle: ({ db, person, params, body, now }) => keepSet(db, person, body, now, params.id),
})
