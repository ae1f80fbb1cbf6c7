import { z } from 'zod'
import { id } from '../../../../core/question'
import { trialPart } from '../../../rehearsal/trial'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** Some sittings of a trial run. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: trialPart,
  handle: (context) => inThread(context, 'trialRun', [context.person, context.params.id, context.body]),
})
