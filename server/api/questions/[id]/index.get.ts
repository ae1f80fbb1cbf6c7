import { z } from 'zod'
import { id } from '../../../../core/question'
import { loadQuestion } from '../../../domain/bank/questions/questions'
import { route } from '../../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  query: z.object({ version: z.coerce.number().int().min(1).optional() }),
  handle: ({ db, person, params, query, now }) => loadQuestion(db, person, params.id, query.version, now),
})
