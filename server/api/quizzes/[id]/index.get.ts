import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'
import { z } from 'zod'
import { id } from '../../../../core/question'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  handle: (context) => inThread(context, 'quizView', [context.person, context.params.id, context.now]),
})
