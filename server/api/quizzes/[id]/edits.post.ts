import { z } from 'zod'
import { id } from '../../../../core/question'
import { edit, type Edit } from '../../../../core/quiz'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({ on: z.int().min(0), token: z.string().regex(/^[a-z0-9]{4,20}\.[a-z0-9]{1,18}$/), edit }),
  handle: (context) => {
    const { person, params, body, now } = context
    return inThread(context, 'makeEdit', [person, params.id, body.on, body.token, body.edit as Edit, now])
  },
})
