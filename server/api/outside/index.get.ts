import { listOutside } from '../../domain/bank/outside/outside'
import { standInKeeper } from '../../standins/keeper/stand-in'
import { route } from '../../utils/route'

/** Banks of others: what there is, what the school has, and what has been corrected. */
export default route({
  right: 'teacher',
  handle: ({ db, person, now }) => listOutside(db, person, standInKeeper(db, now), now),
})
