import { z } from 'zod'
import { blueprint } from '../../../core/blueprint'
import { id } from '../../../core/question'
import { changeBlueprint } from '../../domain/blueprints/keep'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: z.strictObject({ blueprint, shared: z.boolean() }),
  handle: ({ db, person, params, body, now }) => changeBlueprint(db, person, params.id, body, now),
})
