import { rosterFiles } from '../../domain/roster/look'
import { inThread } from '../../utils/job'
import { rosterLimit } from '../../utils/roster-limit'
import { route } from '../../utils/route'

/** What files of a roster would do to the school; nothing is done. */
export default route({
  right: 'admin',
  body: rosterFiles,
  most: rosterLimit,
  handle: (context) => inThread(context, 'lookAtRoster', [context.person, context.body]),
})
