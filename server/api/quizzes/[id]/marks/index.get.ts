import { z } from 'zod'
import { id } from '../../../../../core/question'
import { marksTable } from '../../../../domain/marks/marks'
import { route } from '../../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  handle: ({ db, params, now }) => marksTable(db, params.id, now),
})
