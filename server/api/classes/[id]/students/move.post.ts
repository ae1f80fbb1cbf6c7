import { z } from 'zod'
import { id } from '../../../../../core/question'
import { moveStudents } from '../../../../domain/classes/members'
import { studentIds } from '../../../../domain/classes/adding'
import { ensureRight } from '../../../../people/rights'
import { route } from '../../../../utils/route'

/** Moves students to another class, which the teacher teaches too. */
export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  body: studentIds.extend({ to: id }),
  async handle({ db, person, params, body, now }) {
    await ensureRight(db, 'classTeacher', person, body.to)
    return { moved: await moveStudents(db, person, { from: params.id, to: body.to }, body.students, now) }
  },
})
