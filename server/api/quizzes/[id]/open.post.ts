import { z } from 'zod'
import { id } from '../../../../core/question'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  handle(context) {
    const { person, params, now } = context
    return inThread(context, 'openQuiz', [person, params.id, now])
  },
})
