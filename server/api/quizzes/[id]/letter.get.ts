import { z } from 'zod'
import { id } from '../../../../core/question'
import { previewLetter, previewQuery } from '../../../domain/letters/preview'
import { route } from '../../../utils/route'

/** How a letter reads that a student would be sent. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  query: previewQuery,
  handle: ({ db, person, params, query, now }) => previewLetter(db, person, params.id, query, now),
})
