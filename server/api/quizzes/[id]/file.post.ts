import { z } from 'zod'
import { id } from '../../../../core/question'
import { giveQuizRequest } from '../../../domain/imports/tests'
import { resultOfThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** The quiz with its questions as a package. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: giveQuizRequest,
  async handle(context) {
    const { event, person, params, body } = context
    const { bytes, type, name } = await resultOfThread(context, 'giveQuiz', [person, params.id, body])
    setHeaders(event, { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` })
    return Buffer.from(bytes.buffer)
  },
})
