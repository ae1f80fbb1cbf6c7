import { z } from 'zod'
import { id } from '../../../../core/question'
import { takeUpAgain } from '../../../domain/sittings/again'
import { route } from '../../../utils/route'

export default route({
  right: 'student',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => takeUpAgain(db, person.id, params.id, now),
})
