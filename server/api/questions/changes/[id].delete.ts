import { z } from 'zod'
import { id } from '../../../../core/question'
import { undoMany } from '../../../domain/bank/questions/bulk'
import { route } from '../../../utils/route'

/** Takes a change of many questions back. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => undoMany(db, person, params.id, now),
})
