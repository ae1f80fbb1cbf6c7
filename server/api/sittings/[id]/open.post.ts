import { z } from 'zod'
import { id, language } from '../../../../core/question'
import { openSitting } from '../../../domain/sittings/sitting'
import { route } from '../../../utils/route'

/** The whole sheet, the answers kept and the clock; this device gets the lease. */
export default route({
  right: 'student',
  params: z.object({ id }),
  body: z.strictObject({ device: id, language: language.nullish() }),
  handle: ({ db, person, params, body, now }) => openSitting(db, person.id, params.id, body.device, now, body.language),
})
