import { z } from 'zod'
import { lookAtPass } from '../../people/passes'
import { route } from '../../utils/route'

/** Whom a link lets in. */
export default route({
  right: 'anyone',
  params: z.object({ token: z.string().max(100) }),
  handle: ({ db, params, now }) => lookAtPass(db, params.token, now),
})
