import { z } from 'zod'
import { instant } from '../../../../core/kit/instant'
import { id } from '../../../../core/question'
import { setOpening } from '../../../domain/quizzes/openings'
import { noteSite } from '../../../domain/letters/facts'
import { staysHere } from '../../../standins/mail/post'
import { route } from '../../../utils/route'

/** When a draft opens by itself. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({ at: instant.nullable() }),
  async handle({ event, db, person, params, body, now }) {
    if (staysHere()) await noteSite(db, person.school, getRequestURL(event).origin)
    return setOpening(db, person, params.id, body.at, now)
  },
})
