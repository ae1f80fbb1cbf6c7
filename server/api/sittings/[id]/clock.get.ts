import { z } from 'zod'
import { id } from '../../../../core/question'
import { sittingClock } from '../../../domain/sittings/sitting'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  query: z.object({ lease: z.coerce.number().int() }),
  handle: ({ db, person, params, query, now }) => sittingClock(db, person.id, params.id, query.lease, now),
})
