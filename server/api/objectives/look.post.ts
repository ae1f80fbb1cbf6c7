import { objectivesLimit } from '../../domain/bank/describing/objectives'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

/** What a file of objectives would do; nothing is kept yet. */
export default route({
  right: 'teacher',
  bytes: objectivesLimit,
  handle: (context) => inThread(context, 'lookAtObjectives', [context.person, new Uint8Array(context.bytes)]),
})
