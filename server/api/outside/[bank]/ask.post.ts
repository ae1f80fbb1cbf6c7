import { z } from 'zod'
import { id } from '../../../../core/question'
import { askForBank } from '../../../domain/bank/outside/outside'
import { standInKeeper } from '../../../standins/keeper/stand-in'
import { route } from '../../../utils/route'

/** Asks a keeper for a bank. */
export default route({
  right: 'teacher',
  params: z.object({ bank: id }),
  async handle({ db, person, params, now }) {
    await askForBank(db, person, standInKeeper(db, now), params.bank, now)
    return { ok: true }
  },
})
