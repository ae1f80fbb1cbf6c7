import { inThread } from '../utils/job'
import { route } from '../utils/route'

/** What needs a teacher's hand now. */
export default route({
  right: 'teacher',
  handle: (context) => inThread(context, 'needsAHand', [context.person, context.now]),
})
