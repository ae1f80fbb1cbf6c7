import { z } from 'zod'
import { id } from '../../../../core/question'
import { settle } from '../../../domain/sittings/end'
import { plus } from '../../../../core/kit/time'
import { resultOfThread } from '../../../utils/job'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  async handle(context) {
    const { db, person, params, now } = context
    const closed = await resultOfThread(context, 'closeNow', [person, params.id, now])
    await settle(db, { quiz: params.id }, plus(now, 1), 500)
    return closed
  },
})
