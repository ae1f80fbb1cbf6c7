import { z } from 'zod'
import { id } from '../../../core/question'
import { removeObjective } from '../../domain/bank/describing/objectives'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  async handle({ db, person, params, now }) {
    await removeObjective(db, person, params.id, now)
    return { ok: true }
  },
})
