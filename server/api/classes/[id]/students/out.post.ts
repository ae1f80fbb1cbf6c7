import { z } from 'zod'
import { id } from '../../../../../core/question'
import { takeOut } from '../../../../domain/classes/members'
import { studentIds } from '../../../../domain/classes/adding'
import { route } from '../../../../utils/route'

export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  body: studentIds,
  handle: ({ db, person, params, body, now }) =>
    db.transaction(async (tx) => ({ out: await takeOut(tx, person, params.id, body.students, now) })),
})
