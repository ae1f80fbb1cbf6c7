import { z } from 'zod'
import { id } from '../../../../core/question'
import { viewBatch } from '../../../domain/imports/batch'
import { route } from '../../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params }) => viewBatch(db, person, params.id),
})
