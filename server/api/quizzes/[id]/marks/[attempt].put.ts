import { z } from 'zod'
import { id } from '../../../../../core/question'
import { giveMark, handMark } from '../../../../domain/marks/by-hand'
import { route } from '../../../../utils/route'

/** Marks one answer by hand, or takes such a mark back. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id, attempt: id }),
  body: handMark,
  async handle({ db, person, params, body, now }) {
    await giveMark(db, person, params.id, params.attempt, body, now)
    return { ok: true }
  },
})
