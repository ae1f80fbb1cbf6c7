import { z } from 'zod'
import { id } from '../../../../../core/question'
import { takeClaimBack } from '../../../../domain/classes/claims'
import { route } from '../../../../utils/route'

/** Takes back that somebody claimed a place of the class by its code. */
export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  body: z.strictObject({ student: id }),
  async handle({ db, person, params, body, now }) {
    await takeClaimBack(db, person, params.id, body.student, now)
    return { student: body.student }
  },
})
