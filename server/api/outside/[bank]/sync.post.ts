import { z } from 'zod'
import { id } from '../../../../core/question'
import { syncBank } from '../../../domain/bank/outside/outside'
import { standInKeeper } from '../../../standins/keeper/stand-in'
import { route } from '../../../utils/route'

/** Fetches what the bank holds now, corrections among it. */
export default route({
  right: 'teacher',
  params: z.object({ bank: id }),
  handle: ({ db, person, params, now }) => syncBank(db, person, standInKeeper(db, now), params.bank, now),
})
