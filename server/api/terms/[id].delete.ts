import { z } from 'zod'
import { id } from '../../../core/question'
import { dropTerm } from '../../domain/classes/terms'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => dropTerm(db, person, params.id, now),
})
