import { z } from 'zod'
import { id } from '../../../../../core/question'
import { answerRemark } from '../../../../domain/bank/questions/remarks'
import { route } from '../../../../utils/route'

/** Settles a doubt, or opens it again. */
export default route({
  right: 'teacher',
  params: z.object({ id, remark: id }),
  body: z.strictObject({ answered: z.boolean() }),
  async handle({ db, person, params, body, now }) {
    await answerRemark(db, person, params.id, params.remark, body.answered, now)
    return { ok: true }
  },
})
