import { z } from 'zod'
import { id } from '../../../../../core/question'
import { startSitting } from '../../../../domain/sittings/start'
import { route } from '../../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  body: z.strictObject({ device: id, password: z.string().max(200).optional() }),
  handle: ({ db, person, params, body, address, now }) =>
    startSitting(db, person, params.id, { ...body, address }, now),
})
