import { lookAtObjectives } from '../../domain/bank/describing/objectives'
import { readBytes } from '../../utils/body'
import { route } from '../../utils/route'

/** What a file of objectives would do; nothing is kept yet. */
export default route({
  right: 'teacher',
  handle: async ({ event, db, person }) =>
    lookAtObjectives(
      db,
      person,
      await readBytes(event, 10 * 1024 * 1024, 'A file of objectives may have at most 10 MB.'),
    ),
})
