import { z } from 'zod'
import { id } from '../../../../core/question'
import { batchProgress } from '../../../domain/imports/batch'
import { route } from '../../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params }) => batchProgress(db, person, params.id),
})
