import { hasSchool } from '../../people/people'
import { route } from '../../utils/route'

/** Whether a school is still to be laid out. */
export default route({ right: 'anyone', handle: async ({ db }) => ({ wanted: !(await hasSchool(db)) }) })
