import { z } from 'zod'
import { id } from '../../../../../core/question'
import { markedPaper } from '../../../../domain/marks/marks'
import { route } from '../../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id, attempt: id }),
  handle: ({ db, params, now }) => markedPaper(db, params.id, params.attempt, now),
})
