import { z } from 'zod'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

/** The markup of what was copied out of a word processor, as plain text to go on with. Nothing is kept. */
export default route({
  right: 'teacher',
  body: z.strictObject({
    html: z.string().max(1_000_000, 'This is longer than a million characters. Paste it in parts.'),
  }),
  handle: (context) => inThread(context, 'pastedAsText', [context.body.html]),
})
