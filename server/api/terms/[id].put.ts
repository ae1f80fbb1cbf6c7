import { z } from 'zod'
import { id } from '../../../core/question'
import { keepTerm, termSpec } from '../../domain/classes/terms'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  params: z.object({ id }),
  body: termSpec,
  handle: ({ db, person, params, body, now }) => keepTerm(db, person, body, now, params.id),
})
