import { z } from 'zod'
import { id } from '../../../core/question'
import { dropSearch } from '../../domain/bank/finding/saved-searches'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  async handle({ db, person, params }) {
    await dropSearch(db, person, params.id)
    return { ok: true }
  },
})
