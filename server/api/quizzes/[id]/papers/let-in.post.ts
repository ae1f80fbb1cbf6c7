import { z } from 'zod'
import { id } from '../../../../../core/question'
import { letEverybodyIn } from '../../../../domain/sittings/let-in'
import { route } from '../../../../utils/route'

/** Lets everybody back into their paper who was away too long, where nobody is told whose each is. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  handle: async ({ db, person, params, now }) => ({ papers: await letEverybodyIn(db, person, params.id, now) }),
})
