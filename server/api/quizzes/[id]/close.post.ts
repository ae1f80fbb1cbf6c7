import { z } from 'zod'
import { id } from '../../../../core/question'
import { closeNow } from '../../../domain/quizzes/close'
import { settle } from '../../../domain/sittings/end'
import { plus } from '../../../../core/kit/time'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  async handle({ db, person, params, now }) {
    const closed = await closeNow(db, person, params.id, now)
    await settle(db, { quiz: params.id }, plus(now, 1), 500)
    return closed
  },
})
