import { clockFault } from '../clock'
import { route } from '../utils/route'

/** Whether this process can serve: it reaches its database, and its clock is near the database's. */
export default route({
  right: 'anyone',
  handle: async ({ db, now }) => {
    await db.one('SELECT 1 AS yes')
    return { now, clock: clockFault().sentence }
  },
})
