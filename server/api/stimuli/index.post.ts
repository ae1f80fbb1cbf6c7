import { stimulus } from '../../../core/question'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: stimulus,
  handle: (context) => inThread(context, 'addStimulus', [context.person, context.body, context.now]),
})
