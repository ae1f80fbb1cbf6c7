import { addressList, studentsByAddress } from '../../domain/classes/by-address'
import { route } from '../../utils/route'

/** Students of the school whom a pasted list of addresses names. */
export default route({
  right: 'teacher',
  body: addressList,
  handle: ({ db, person, body }) => studentsByAddress(db, person, body.list),
})
