import { z } from 'zod'
import { id } from '../../../../core/question'
import { rate } from '../../../domain/quizzes/ratings'
import { route } from '../../../utils/route'

const chance = z
  .number('A chance is a number.')
  .min(0, 'A chance is at least 0 %.')
  .max(1, 'A chance is at most 100 %.')

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({ ratings: z.record(id, chance.nullable()) }),
  handle: ({ db, person, params, body, now }) => rate(db, person, params.id, body.ratings, now),
})
