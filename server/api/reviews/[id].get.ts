import { z } from 'zod'
import { id } from '../../../core/question'
import { reviewFor } from '../../domain/reviews/review'
import { route } from '../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => reviewFor(db, person, params.id, now),
})
