import { z } from 'zod'
import { id } from '../../../../core/question'
import { register } from '../../../domain/classes/register'
import { route } from '../../../utils/route'

export default route({
  right: 'classHelper',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => register(db, person, params.id, now),
})
