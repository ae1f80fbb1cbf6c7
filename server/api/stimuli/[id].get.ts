import { z } from 'zod'
import { id } from '../../../core/question'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: (context) => inThread(context, 'loadStimulus', [context.person, context.params.id]),
})
