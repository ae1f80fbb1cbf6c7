import { z } from 'zod'
import { id } from '../../../../core/question'
import { correctionDifferences } from '../../../domain/bank/outside/outside'
import { route } from '../../../utils/route'

/** What the keeper's correction would change in the school's copy. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params }) => correctionDifferences(db, person, params.id),
})
