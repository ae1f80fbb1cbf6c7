import { z } from 'zod'
import { id } from '../../../../core/question'
import { keepValues, ownValues } from '../../../domain/people/own-fields'
import { route } from '../../../utils/route'

/** What the school keeps of a student in fields of its own. */
export default route({
  right: 'studentTeacher',
  params: z.object({ id }),
  body: ownValues,
  handle: ({ db, person, params, body, now }) => keepValues(db, person, params.id, body, now),
})
