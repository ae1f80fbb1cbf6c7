import { z } from 'zod'
import { id } from '../../../../core/question'
import { giveQuiz, giveQuizRequest } from '../../../domain/imports/tests'
import { route } from '../../../utils/route'

/** The quiz with its questions as a package. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: giveQuizRequest,
  async handle({ event, db, person, params, body }) {
    const { bytes, type, name } = await giveQuiz(db, person, params.id, body)
    setHeaders(event, { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` })
    return bytes
  },
})
