import { z } from 'zod'
import { id } from '../../../../core/question'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: (context) => inThread(context, 'viewBatch', [context.person, context.params.id]),
})
