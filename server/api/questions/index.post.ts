import { question } from '../../../core/question'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: question,
  handle: (context) => inThread(context, 'addQuestion', [context.person, context.body, context.now]),
})
