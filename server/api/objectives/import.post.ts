import { importObjectives, objectivesLimit } from '../../domain/bank/describing/objectives'
import { route } from '../../utils/route'

/** Brings a file of objectives in, all or nothing. */
export default route({
  right: 'teacher',
  bytes: objectivesLimit,
  handle: ({ db, person, bytes, now }) => importObjectives(db, person, bytes, now),
})
