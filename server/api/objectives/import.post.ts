import { importObjectives } from '../../domain/bank/describing/objectives'
import { readBytes } from '../../utils/body'
import { route } from '../../utils/route'

/** Brings a file of objectives in, all or nothing. */
export default route({
  right: 'teacher',
  handle: async ({ event, db, person, now }) =>
    importObjectives(
      db,
      person,
      await readBytes(event, 10 * 1024 * 1024, 'A file of objectives may have at most 10 MB.'),
      now,
    ),
})
