import { z } from 'zod'
import { id } from '../../../core/question'
import { changeObjective, objectiveBody } from '../../domain/bank/describing/objectives'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: objectiveBody,
  async handle({ db, person, params, body, now }) {
    await changeObjective(db, person, params.id, body, now)
    return { ok: true }
  },
})
