import { z } from 'zod'
import { id } from '../../../../core/question'
import { takeQuestion } from '../../../domain/bank/outside/outside'
import { standInKeeper } from '../../../standins/keeper/stand-in'
import { route } from '../../../utils/route'

/** Takes a question of an outside bank as the school's own copy. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => takeQuestion(db, person, standInKeeper(db, now), params.id, now),
})
