import { z } from 'zod'
import { id } from '../../../../core/question'
import { changePerson, personChange } from '../../../domain/people/people'
import { route } from '../../../utils/route'

export default route({
  right: 'admin',
  params: z.object({ id }),
  body: personChange,
  handle: ({ db, person, params, body, now }) => changePerson(db, person, params.id, body, now),
})
