import { z } from 'zod'
import { question } from '../../../core/question'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

/** A question as a student would see it, and what an answer would earn. Nothing is kept. */
export default route({
  right: 'teacher',
  body: z.strictObject({ question, answer: z.unknown().optional() }),
  handle: (context) => inThread(context, 'previewQuestion', [context.body.question, context.body.answer]),
})
