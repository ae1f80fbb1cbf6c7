import { z } from 'zod'
import { id } from '../../../../../core/question'
import { inThread } from '../../../../utils/job'
import { route } from '../../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id, revision: z.coerce.number().int().min(0) }),
  handle: (context) => inThread(context, 'earlierQuiz', [context.person, context.params.id, context.params.revision]),
})
