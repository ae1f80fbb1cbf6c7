import { z } from 'zod'
import { id } from '../../../../core/question'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

export default route({
  right: 'admin',
  params: z.object({ id }),
  handle: (context) => inThread(context, 'undoRoster', [context.person, context.params.id, context.now]),
})
