import { z } from 'zod'
import { id } from '../../../../core/question'
import { setQuizState } from '../../../domain/quizzes/open'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({ state: z.enum(['published', 'withdrawn', 'filed']) }),
  async handle({ db, person, params, body, now }) {
    await setQuizState(db, person, params.id, body.state, now)
    return body
  },
})
