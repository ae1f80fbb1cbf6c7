import { giveRequest } from '../../domain/imports/give'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

/** What a plain reader of a file will not see of the questions that would be in it. */
export default route({
  right: 'teacher',
  body: giveRequest,
  handle: (context) => inThread(context, 'lookAtUnseen', [context.person, context.body]),
})
