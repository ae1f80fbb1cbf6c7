import { z } from 'zod'
import { id } from '../../../../core/question'
import { lookInto } from '../../../domain/quizzes/look'
import { route } from '../../../utils/route'

/** What a quiz holds, before it is copied or taken from. */
export default route({
  right: 'quizReader',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => lookInto(db, person, params.id, now),
})
