import { addTeacher, newTeacher } from '../../domain/people/people'
import { ownAddress } from '../../own-address'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  body: newTeacher,
  handle: ({ db, person, body, now }) => addTeacher(db, person, body, ownAddress(), now),
})
