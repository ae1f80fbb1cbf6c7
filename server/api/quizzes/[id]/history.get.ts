import { z } from 'zod'
import { id } from '../../../../core/question'
import { editsBefore } from '../../../domain/quizzes/history'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  query: z.object({ before: z.coerce.number().int().min(0).optional() }),
  handle: ({ db, params, query }) => editsBefore(db, params.id, query.before ?? null),
})
