import { z } from 'zod'
import { id } from '../../../../../core/question'
import { studentIds } from '../../../../domain/classes/adding'
import { need, setNeeds } from '../../../../domain/classes/needs'
import { route } from '../../../../utils/route'

/** What several students of the class need, the same for each. */
export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  body: studentIds.extend({ need }),
  handle: async ({ db, person, params, body, now }) => ({
    given: await setNeeds(db, person, params.id, body.students, body.need, now),
  }),
})
