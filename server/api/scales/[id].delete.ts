import { z } from 'zod'
import { id } from '../../../core/question'
import { dropScale } from '../../domain/people/scales'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => dropScale(db, person, params.id, now),
})
