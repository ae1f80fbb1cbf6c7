import { z } from 'zod'
import { id } from '../../../../core/question'
import { quizRecord, recordQuery } from '../../../domain/quizzes/record-page'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  query: recordQuery,
  handle: ({ db, person, params, query }) => quizRecord(db, person, params.id, query),
})
