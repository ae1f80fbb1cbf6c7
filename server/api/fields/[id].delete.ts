import { z } from 'zod'
import { id } from '../../../core/question'
import { dropField } from '../../domain/people/own-fields'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => dropField(db, person, params.id, now),
})
