import { z } from 'zod'
import { id } from '../../../../core/question'
import { linkFor } from '../../../domain/people/links'
import { ownAddress } from '../../../utils/own-address'
import { route } from '../../../utils/route'

/** A link with which a student of one's own chooses a password, once; every session of theirs is over. */
export default route({
  right: 'studentTeacher',
  params: z.object({ id }),
  handle: ({ event, db, person, params, now }) => linkFor(db, person, params.id, ownAddress(event), now),
})
