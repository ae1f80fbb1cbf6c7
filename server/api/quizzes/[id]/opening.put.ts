import { z } from 'zod'
import { instant } from '../../../../core/kit/instant'
import { id } from '../../../../core/question'
import { setOpening } from '../../../domain/quizzes/openings'
import { route } from '../../../utils/route'

/** When a draft opens by itself. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({ at: instant.nullable() }),
  handle: ({ db, person, params, body, now }) => setOpening(db, person, params.id, body.at, now),
})
