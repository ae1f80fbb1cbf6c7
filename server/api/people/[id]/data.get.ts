import { z } from 'zod'
import { id } from '../../../../core/question'
import { giveOwnData } from '../../../domain/people/own-data'
import { sendFile } from '../../../utils/send-file'
import { route } from '../../../utils/route'

/** All that is stored of a student, to be given to them. */
export default route({
  right: 'admin',
  params: z.object({ id }),
  handle: async ({ event, db, person, params, now }) => sendFile(event, await giveOwnData(db, person, params.id, now)),
})
