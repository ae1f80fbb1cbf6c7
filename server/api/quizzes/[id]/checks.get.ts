import { z } from 'zod'
import { id } from '../../../../core/question'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  query: z.object({ held: z.string().max(40).default('') }),
  handle: (context) =>
    inThread(context, 'lookAtChecks', [context.person, context.params.id, context.query.held, context.now]),
})
