import { z } from 'zod'
import { id } from '../../../core/question'
import { scaleSpec, keepScale } from '../../domain/people/scales'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  params: z.object({ id }),
  body: scaleSpec,
  handle: ({ db, person, params, body, now }) => keepScale(db, person, body, now, params.id),
})
