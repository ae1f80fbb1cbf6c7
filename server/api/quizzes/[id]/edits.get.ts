import { z } from 'zod'
import { id } from '../../../../core/question'
import { changesSince } from '../../../domain/quizzes/edits'
import { route } from '../../../utils/route'

/** What others did meanwhile. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  query: z.object({ since: z.coerce.number().int().min(0) }),
  handle: ({ db, params, query }) => changesSince(db, params.id, query.since),
})
