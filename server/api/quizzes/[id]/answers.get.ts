import { z } from 'zod'
import { id } from '../../../../core/question'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** What was answered, question by question: the figures of a survey. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  handle: (context) => inThread(context, 'surveyFigures', [context.params.id, context.now]),
})
