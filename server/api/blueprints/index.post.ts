import { z } from 'zod'
import { blueprint } from '../../../core/blueprint'
import { keepBlueprint } from '../../domain/blueprints/keep'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: z.strictObject({ blueprint, shared: z.boolean().default(false) }),
  handle: ({ db, person, body, now }) => keepBlueprint(db, person, body, now),
})
