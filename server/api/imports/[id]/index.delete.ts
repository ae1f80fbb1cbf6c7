import { z } from 'zod'
import { id } from '../../../../core/question'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** Takes a finished import back. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: (context) => inThread(context, 'undoImport', [context.person, context.params.id, context.now]),
})
