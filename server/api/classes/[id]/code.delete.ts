import { z } from 'zod'
import { id } from '../../../../core/question'
import { endCode } from '../../../domain/classes/join-codes'
import { route } from '../../../utils/route'

export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  async handle({ db, person, params, now }) {
    await endCode(db, person, params.id, now)
    return { ended: true }
  },
})
