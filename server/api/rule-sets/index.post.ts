import { keepSet, ruleSetSpec } from '../../domain/quizzes/rule-sets'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: ruleSetSpec,
  handle: ({ db, person, body, now }) => keepSet(db, person, body, now),
})
