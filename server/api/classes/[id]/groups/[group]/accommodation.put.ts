import { z } from 'zod'
import { id } from '../../../../../../core/question'
import { accommodation } from '../../../../../../core/quiz'
import { setGroupAccommodation } from '../../../../../domain/classes/groups'
import { route } from '../../../../../utils/route'

export default route({
  right: 'classTeacher',
  params: z.object({ id, group: id }),
  body: accommodation,
  handle: ({ db, person, params, body, now }) => setGroupAccommodation(db, person, params.id, params.group, body, now),
})
