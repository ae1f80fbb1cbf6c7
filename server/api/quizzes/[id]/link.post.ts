import { z } from 'zod'
import { id } from '../../../../core/question'
import { makeLink } from '../../../domain/links/make-link'
import { ensureTeaches } from '../../../domain/quizzes/quizzes'
import { route } from '../../../utils/route'

/** Makes the link of a quiz, or gives it another address. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  async handle({ db, person, params, now }) {
    await ensureTeaches(db, person, params.id)
    return makeLink(db, person, params.id, now)
  },
})
