import { question } from '../../../core/question'
import { addQuestion } from '../../domain/bank/questions/questions'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: question,
  handle: ({ db, person, body, now }) => addQuestion(db, person, body, now),
})
