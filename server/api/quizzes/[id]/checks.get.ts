import { z } from 'zod'
import { id } from '../../../../core/question'
import { checksFor } from '../../../domain/quizzes/checks'
import { loadQuiz } from '../../../domain/quizzes/quizzes'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  async handle({ db, person, params, now }) {
    return checksFor(db, person, (await loadQuiz(db, params.id)).quiz, now)
  },
})
