import { z } from 'zod'
import { id } from '../../../../core/question'
import { newFault, reportFault } from '../../../domain/bank/outside/outside'
import { standInKeeper } from '../../../standins/keeper/stand-in'
import { route } from '../../../utils/route'

/** Reports a fault to the keeper of the bank that the question is from. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: newFault,
  async handle({ db, person, params, body, now }) {
    await reportFault(db, person, standInKeeper(db, now), params.id, body, now)
    return { ok: true }
  },
})
