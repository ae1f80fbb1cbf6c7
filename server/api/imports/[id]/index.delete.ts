import { z } from 'zod'
import { id } from '../../../../core/question'
import { undoImport } from '../../../domain/imports/untake'
import { route } from '../../../utils/route'

/** Takes a finished import back. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params, now }) => undoImport(db, person, params.id, now),
})
