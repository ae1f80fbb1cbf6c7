import { demoPeople } from '../../people/people'
import { route } from '../../utils/route'

/** The people of the demo school, by role; empty where there is none. */
export default route({
  right: 'anyone',
  handle: async ({ db }) =>
    process.env.THISTLE_DEMO === 'off'
      ? []
      : (await demoPeople(db)).map(({ id, role, name, classes }) => ({ id, role, name, classes })),
})
