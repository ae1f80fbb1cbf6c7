import { z } from 'zod'
import { id } from '../../../../core/question'
import { judgesOf } from '../../../domain/quizzes/ratings'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  handle: ({ db, person, params }) => judgesOf(db, person, params.id),
})
