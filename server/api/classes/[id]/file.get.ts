import { z } from 'zod'
import { id } from '../../../../core/question'
import { giveRoster, rosterForms } from '../../../domain/roster/give'
import { sendFile } from '../../../utils/send-file'
import { route } from '../../../utils/route'

/** The roster of a class as a file. */
export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  query: z.object({ as: z.enum(rosterForms) }),
  handle: async ({ event, db, person, params, query, now }) =>
    sendFile(event, await giveRoster(db, person, query.as, params.id, now)),
})
