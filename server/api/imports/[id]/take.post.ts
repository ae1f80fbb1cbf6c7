import { z } from 'zod'
import { id } from '../../../../core/question'
import { beginTaking } from '../../../domain/imports/take'
import { serverNow } from '../../../clock'
import { route } from '../../../utils/route'

/** Begins to take the chosen items into the bank; how far it is, is asked for. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: z.strictObject({
    items: z.array(z.int().min(0)).min(1).max(20_000),
    tests: z.array(z.int().min(0)).max(50).default([]),
  }),
  async handle({ db, person, params, body }) {
    const { total, done } = await beginTaking(db, person, params.id, body.items, serverNow, body.tests)
    done.catch((error: unknown) => {
      console.error('import', params.id, error)
    })
    return { total }
  },
})
