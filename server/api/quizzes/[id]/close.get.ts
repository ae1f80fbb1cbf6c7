import { z } from 'zod'
import { id } from '../../../../core/question'
import { lookAtClosing } from '../../../domain/quizzes/close'
import { route } from '../../../utils/route'

/** What closing the quiz now would do to whom. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  handle: ({ db, params, now }) => lookAtClosing(db, params.id, now),
})
