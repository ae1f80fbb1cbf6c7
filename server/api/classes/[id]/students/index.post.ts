import { z } from 'zod'
import { id } from '../../../../../core/question'
import { addNamed, namedList } from '../../../../domain/classes/adding'
import { ownAddress } from '../../../../own-address'
import { route } from '../../../../utils/route'

/** Puts people into the class, by names or addresses; writes to those who have an address and no password yet, where that is wanted. */
export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  body: namedList,
  handle: ({ db, person, params, body, now }) => addNamed(db, person, params.id, body, ownAddress(), now),
})
