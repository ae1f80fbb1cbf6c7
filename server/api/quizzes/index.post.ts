import { z } from 'zod'
import { content } from '../../../core/quiz'
import { createQuiz } from '../../domain/quizzes/quizzes'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: z.strictObject({ title: content.shape.title }),
  async handle({ db, person, body, now }) {
    return { id: await createQuiz(db, person, body.title, now) }
  },
})
