import { z } from 'zod'
import { id } from '../../../../core/question'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** Asks a keeper for a bank. */
export default route({
  right: 'teacher',
  params: z.object({ bank: id }),
  handle: (context) => inThread(context, 'askForBank', [context.person, context.params.bank, context.now]),
})
