import { z } from 'zod'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

/** Questions in plain text, shown as questions while they are typed. Nothing is kept. */
export default route({
  right: 'teacher',
  body: z.strictObject({ text: z.string().max(500_000, 'This text is longer than 500,000 characters.') }),
  handle: (context) => inThread(context, 'lookAt', [context.body.text]),
})
