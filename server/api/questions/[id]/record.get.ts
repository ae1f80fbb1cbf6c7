import { z } from 'zod'
import { id } from '../../../../core/question'
import { questionRecord } from '../../../domain/bank/questions/track-record'
import { route } from '../../../utils/route'

/** How a question has done, and where it is used. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => questionRecord(db, person, params.id, now),
})
