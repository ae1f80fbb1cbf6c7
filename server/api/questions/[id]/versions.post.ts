import { z } from 'zod'
import { id, question } from '../../../../core/question'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** A change makes a new version. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: z.strictObject({ on: z.int().min(1), question }),
  handle: (context) => {
    const { person, params, body, now } = context
    return inThread(context, 'reviseQuestion', [person, params.id, body.on, body.question, now])
  },
})
