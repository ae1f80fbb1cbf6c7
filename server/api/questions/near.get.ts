import { z } from 'zod'
import { id } from '../../../core/question'
import { nearDuplicates } from '../../domain/bank/finding/near'
import { route } from '../../utils/route'

/** Near-duplicates in the bank, or of one question. */
export default route({
  right: 'teacher',
  query: z.object({ of: id.optional() }),
  handle: ({ db, person, query }) => nearDuplicates(db, person, query.of),
})
