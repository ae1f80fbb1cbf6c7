import { z } from 'zod'
import { id } from '../../../../core/question'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** Begins to take the chosen items into the bank; how far it is, is asked for. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: z.strictObject({
    items: z.array(z.int().min(0)).min(1).max(20_000),
    tests: z.array(z.int().min(0)).max(50).default([]),
  }),
  handle: (context) =>
    inThread(context, 'beginTaking', [context.person, context.params.id, context.body.items, context.body.tests]),
})
