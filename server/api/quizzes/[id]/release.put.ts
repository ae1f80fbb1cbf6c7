import { z } from 'zod'
import { id } from '../../../../core/question'
import { releaseTo, unrelease } from '../../../domain/quizzes/open'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({ class: id, released: z.boolean() }),
  async handle({ db, person, params, body, now }) {
    await (body.released ? releaseTo : unrelease)(db, person, params.id, body.class, now)
    return body
  },
})
