import { objectivesLimit } from '../../domain/bank/describing/objectives'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

/** Brings a file of objectives in, all or nothing. */
export default route({
  right: 'teacher',
  bytes: objectivesLimit,
  handle: (context) =>
    inThread(context, 'importObjectives', [context.person, new Uint8Array(context.bytes), context.now]),
})
