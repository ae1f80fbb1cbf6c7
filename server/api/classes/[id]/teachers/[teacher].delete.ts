import { z } from 'zod'
import { id } from '../../../../../core/question'
import { takeTeacherOut } from '../../../../domain/classes/teachers'
import { forbidden } from '../../../../domain/problem'
import { mayInClass } from '../../../../domain/classes/teachers'
import { route } from '../../../../utils/route'

/** A teacher of the class takes a colleague out; who helps in it can go themself. */
export default route({
  right: 'classHelper',
  params: z.object({ id, teacher: id }),
  async handle({ db, person, params, now }) {
    if (params.teacher !== person.id && (await mayInClass(db, person.id, params.id)) !== 'teach') throw forbidden()
    return takeTeacherOut(db, person, params.id, params.teacher, now)
  },
})
