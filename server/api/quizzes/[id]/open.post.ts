import { z } from 'zod'
import { id } from '../../../../core/question'
import { noteSite } from '../../../domain/letters/facts'
import { staysHere } from '../../../standins/mail/post'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  async handle(context) {
    const { event, db, person, params, now } = context
    // Letters that nobody asks for lead to where Thistle was reached last; those that leave, to its set address alone.
    if (staysHere()) await noteSite(db, person.school, getRequestURL(event).origin)
    return inThread(context, 'openQuiz', [person, params.id, now])
  },
})
