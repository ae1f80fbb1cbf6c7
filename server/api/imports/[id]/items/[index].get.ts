import { z } from 'zod'
import { id } from '../../../../../core/question'
import { inThread } from '../../../../utils/job'
import { route } from '../../../../utils/route'

/** A question that would come in, whole. */
export default route({
  right: 'teacher',
  params: z.object({ id, index: z.coerce.number().int().min(0) }),
  handle: (context) => inThread(context, 'stagedQuestion', [context.person, context.params.id, context.params.index]),
})
