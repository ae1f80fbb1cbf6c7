import { z } from 'zod'
import { id } from '../../../../core/question'
import { whyStudent } from '../../../domain/quizzes/why'
import { route } from '../../../utils/route'

/** Whether a student sees the quiz and can sit it now, and why not. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  query: z.object({ student: id }),
  handle: ({ db, person, params, query, now }) => whyStudent(db, person, params.id, query.student, now),
})
