import { quizView } from '../../../domain/quizzes/view'
import { route } from '../../../utils/route'
import { z } from 'zod'
import { id } from '../../../../core/question'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => quizView(db, person, params.id, now),
})
