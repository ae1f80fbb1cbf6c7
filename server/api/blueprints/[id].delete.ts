import { z } from 'zod'
import { id } from '../../../core/question'
import { dropBlueprint } from '../../domain/blueprints/keep'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params }) => dropBlueprint(db, person, params.id),
})
