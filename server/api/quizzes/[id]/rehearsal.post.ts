import { z } from 'zod'
import { id } from '../../../../core/question'
import { rehearsed } from '../../../rehearsal/schema'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** What the student's page is answered at an instant of a rehearsal. Nothing of it stays. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: rehearsed,
  handle(context) {
    const { person, params, body } = context
    const { rehearsal, ...asked } = body
    return inThread(context, 'playRehearsal', [person, params.id, rehearsal, asked])
  },
})
