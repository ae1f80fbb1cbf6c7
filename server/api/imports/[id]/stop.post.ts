import { z } from 'zod'
import { id } from '../../../../core/question'
import { stopTaking } from '../../../domain/imports/untake'
import { route } from '../../../utils/route'

/** Stops an import under way; what it has added so far is taken away. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  async handle({ db, person, params }) {
    await stopTaking(db, person, params.id)
    return { ok: true }
  },
})
