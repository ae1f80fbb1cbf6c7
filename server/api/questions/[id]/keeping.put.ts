import { z } from 'zod'
import { id } from '../../../../core/question'
import { keepingChange, setKeeping } from '../../../domain/bank/questions/keeping'
import { route } from '../../../utils/route'

/** Where a question is kept, and who may see it. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: keepingChange,
  async handle({ db, person, params, body, now }) {
    await setKeeping(db, person, params.id, body, now)
    return { ok: true }
  },
})
