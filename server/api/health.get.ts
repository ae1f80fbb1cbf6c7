import { route } from '../utils/route'

export default route({
  right: 'anyone',
  handle: async ({ db, now }) => {
    await db.one('SELECT 1 AS yes')
    return { now }
  },
})
