import { z } from 'zod'
import { id } from '../../../../core/question'
import { plus } from '../../../../core/kit/time'
import { forWhom, readWhom } from '../../../domain/quizzes/for-whom'
import { settle } from '../../../domain/sittings/end'
import { resultOfThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** Closes the quiz at once: for everybody, a class or a student. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: forWhom.default({}),
  async handle(context) {
    const { db, person, params, body, now } = context
    const closed = await resultOfThread(context, 'closeNow', [person, params.id, readWhom(body), now])
    await settle(db, { quiz: params.id }, plus(now, 1), 500)
    return closed
  },
})
