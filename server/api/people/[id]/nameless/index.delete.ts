import { z } from 'zod'
import { id } from '../../../../../core/question'
import { giveNameBack } from '../../../../domain/people/nameless'
import { route } from '../../../../utils/route'

/** Gives somebody their name back. */
export default route({
  right: 'admin',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => giveNameBack(db, person, params.id, now),
})
