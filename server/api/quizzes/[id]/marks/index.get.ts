import { z } from 'zod'
import { id } from '../../../../../core/question'
import { inThread } from '../../../../utils/job'
import { route } from '../../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  handle: (context) => inThread(context, 'marksTable', [context.params.id, context.now]),
})
