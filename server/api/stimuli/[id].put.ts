import { z } from 'zod'
import { id, stimulus } from '../../../core/question'
import { reviseStimulus } from '../../domain/bank/material/stimuli'
import { route } from '../../utils/route'

/** A change makes a new version. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: z.strictObject({ on: z.int().min(1), stimulus }),
  handle: ({ db, person, params, body, now }) => reviseStimulus(db, person, params.id, body.on, body.stimulus, now),
})
