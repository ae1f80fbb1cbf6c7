import { z } from 'zod'
import { lookAtLink } from '../../domain/links/come-in'
import { route } from '../../utils/route'

/** What somebody reads who follows a link. */
export default route({
  right: 'anyone',
  params: z.object({ token: z.string().max(100) }),
  handle: ({ db, person, params, address, now }) => lookAtLink(db, person, params.token, address, now),
})
