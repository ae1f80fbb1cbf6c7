import { z } from 'zod'
import { id } from '../../../../../core/question'
import { bringBack } from '../../../../domain/classes/members'
import { studentIds } from '../../../../domain/classes/adding'
import { route } from '../../../../utils/route'

export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  body: studentIds,
  handle: async ({ db, person, params, body, now }) => ({
    back: await bringBack(db, person, params.id, body.students, now),
  }),
})
