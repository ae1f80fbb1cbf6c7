import { z } from 'zod'
import { id } from '../../../../core/question'
import { comeHere } from '../../../domain/quizzes/presence'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({ page: z.string().regex(/^[a-z0-9]{4,20}$/), row: id.nullable() }),
  async handle({ db, person, params, body, now }) {
    await comeHere(db, person, params.id, body.page, body.row, now)
    return { ok: true }
  },
})
