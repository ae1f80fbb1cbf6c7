import { fieldSpec, keepField } from '../../domain/people/own-fields'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  body: fieldSpec,
  handle: ({ db, person, body, now }) => keepField(db, person, body, now),
})
