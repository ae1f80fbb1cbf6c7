import { z } from 'zod'
import { id } from '../../../../core/question'
import { linkFor } from '../../../domain/people/links'
import { ownAddress } from '../../../own-address'
import { route } from '../../../utils/route'

/** A link with which somebody of the school chooses a password, once. */
export default route({
  right: 'admin',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => linkFor(db, person, params.id, ownAddress(), now),
})
