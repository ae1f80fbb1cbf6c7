import { z } from 'zod'
import { id } from '../../../core/question'
import { roster } from '../../domain/classes/classes'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params }) => roster(db, person, params.id),
})
