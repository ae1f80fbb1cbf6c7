import { z } from 'zod'
import { id } from '../../../../../core/question'
import { makeNameless } from '../../../../domain/people/nameless'
import { route } from '../../../../utils/route'

/** Takes the name of somebody who has left; for thirty days it can be given back. */
export default route({
  right: 'admin',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => makeNameless(db, person, params.id, now),
})
