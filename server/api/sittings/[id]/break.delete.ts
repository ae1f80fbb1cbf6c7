import { z } from 'zod'
import { id } from '../../../../core/question'
import { endBreak } from '../../../domain/sittings/breaks'
import { route } from '../../../utils/route'

/** The break ends, and the clock goes on. */
export default route({
  right: 'student',
  params: z.object({ id }),
  async handle({ db, person, params, now }) {
    await endBreak(db, person.id, params.id, now)
    return { ended: true }
  },
})
