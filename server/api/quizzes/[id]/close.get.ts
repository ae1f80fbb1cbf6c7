import { z } from 'zod'
import { id } from '../../../../core/question'
import { forWhom, readWhom } from '../../../domain/quizzes/for-whom'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** What closing the quiz now would do to whom. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  query: forWhom,
  handle: (context) => inThread(context, 'lookAtClosing', [context.params.id, readWhom(context.query), context.now]),
})
