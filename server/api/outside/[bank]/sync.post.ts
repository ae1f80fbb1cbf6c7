import { z } from 'zod'
import { id } from '../../../../core/question'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** Fetches what the bank holds now, corrections among it. */
export default route({
  right: 'teacher',
  params: z.object({ bank: id }),
  handle: (context) => inThread(context, 'syncBank', [context.person, context.params.bank, context.now]),
})
