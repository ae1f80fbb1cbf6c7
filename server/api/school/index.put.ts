import { changeSchool, schoolChange } from '../../domain/people/school'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  body: schoolChange,
  handle: ({ db, person, body, now }) => changeSchool(db, person, body, now),
})
