import { z } from 'zod'
import { id } from '../../../../core/question'
import { linkFor } from '../../../domain/people/links'
import { ownAddress } from '../../../own-address'
import { route } from '../../../utils/route'

/** A link with which a student of one's own chooses a password, once; every session of theirs is over. */
export default route({
  right: 'studentTeacher',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => linkFor(db, person, params.id, ownAddress(), now),
})
