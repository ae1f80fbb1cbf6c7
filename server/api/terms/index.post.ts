import { keepTerm, termSpec } from '../../domain/classes/terms'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  body: termSpec,
  handle: ({ db, person, body, now }) => keepTerm(db, person, body, now),
})
