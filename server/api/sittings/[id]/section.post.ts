import { z } from 'zod'
import { id } from '../../../../core/question'
import { enterSection } from '../../../domain/sittings/enter-section'
import { route } from '../../../utils/route'

/** A section is entered: its clock begins, and another one with a clock of its own is closed; null only closes that. */
export default route({
  right: 'student',
  params: z.object({ id }),
  body: z.strictObject({ lease: z.int().min(1), section: z.int().min(0).max(100).nullable() }),
  async handle({ db, person, params, body, now }) {
    await enterSection(db, person.id, params.id, body.lease, body.section, now)
    return { entered: body.section }
  },
})
