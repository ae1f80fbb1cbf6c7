import { z } from 'zod'
import { id } from '../../../core/question'
import { fieldSpec, keepField } from '../../domain/people/own-fields'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  params: z.object({ id }),
  body: fieldSpec,
  handle: ({ db, person, params, body, now }) => keepField(db, person, body, now, params.id),
})
