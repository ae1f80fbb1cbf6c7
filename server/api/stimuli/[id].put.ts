import { z } from 'zod'
import { id, stimulus } from '../../../core/question'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

/** A change makes a new version. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: z.strictObject({ on: z.int().min(1), stimulus }),
  handle: (context) => {
    const { person, params, body, now } = context
    return inThread(context, 'reviseStimulus', [person, params.id, body.on, body.stimulus, now])
  },
})
