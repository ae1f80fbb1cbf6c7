import { z } from 'zod'
import { id } from '../../../../../core/question'
import { beforeSitting } from '../../../../domain/sittings/my-quizzes'
import { route } from '../../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => beforeSitting(db, person, params.id, now),
})
