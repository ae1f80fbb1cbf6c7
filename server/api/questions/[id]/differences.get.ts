import { z } from 'zod'
import { id } from '../../../../core/question'
import { versionDifferences } from '../../../domain/bank/questions/keeping'
import { route } from '../../../utils/route'

const version = z.coerce.number().int().min(1)

/** What differs between two versions. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  query: z.object({ from: version, to: version }),
  handle: ({ db, person, params, query }) => versionDifferences(db, person, params.id, query.from, query.to),
})
