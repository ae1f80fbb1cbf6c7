import { scaleSpec, keepScale } from '../../domain/people/scales'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  body: scaleSpec,
  handle: ({ db, person, body, now }) => keepScale(db, person, body, now),
})
