import { z } from 'zod'
import { id } from '../../../../core/question'
import { scope } from '../../../domain/blueprints/candidates'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  query: scope,
  handle: (context) => inThread(context, 'sortsIn', [context.person, context.params.id, context.query, context.now]),
})
