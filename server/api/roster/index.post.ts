import { rosterTaking } from '../../domain/roster/take'
import { inThread } from '../../utils/job'
import { rosterLimit } from '../../utils/roster-limit'
import { route } from '../../utils/route'

/** Takes a roster in, whole or not at all; it ends without a trace when whoever asked has gone. */
export default route({
  right: 'admin',
  body: rosterTaking,
  most: rosterLimit,
  handle: (context) => inThread(context, 'takeRoster', [context.person, context.body, context.now]),
})
