import { lookAtObjectives, objectivesLimit } from '../../domain/bank/describing/objectives'
import { route } from '../../utils/route'

/** What a file of objectives would do; nothing is kept yet. */
export default route({
  right: 'teacher',
  bytes: objectivesLimit,
  handle: ({ db, person, bytes }) => lookAtObjectives(db, person, bytes),
})
