import { z } from 'zod'
import { id } from '../../../../core/question'
import { studentPage } from '../../../domain/people/student-page'
import { route } from '../../../utils/route'

export default route({
  right: 'studentTeacher',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => studentPage(db, person, params.id, now),
})
