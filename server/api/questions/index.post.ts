import { question } from '../../../core/question'
import { newId } from '../../domain/ids'
import { newKeeping } from '../../domain/bank/questions/questions'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  query: newKeeping,
  body: question,
  handle: (context) => {
    const { person, query, body, now } = context
    return inThread(context, 'addQuestion', [
      person,
      body,
      now,
      newId(),
      { folder: query.folder || null, sharing: query.sharing },
    ])
  },
})
