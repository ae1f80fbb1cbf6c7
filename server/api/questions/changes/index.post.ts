import { bulkRequest } from '../../../domain/bank/questions/bulk'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** Changes many questions at once. */
export default route({
  right: 'teacher',
  body: bulkRequest,
  handle: (context) => inThread(context, 'changeMany', [context.person, context.body, context.now]),
})
