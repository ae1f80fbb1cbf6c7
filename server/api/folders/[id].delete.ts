import { z } from 'zod'
import { id } from '../../../core/question'
import { removeFolder } from '../../domain/bank/describing/folders'
import { route } from '../../utils/route'

/** Takes a folder away; what was in it goes to the folder above. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  async handle({ db, person, params }) {
    await removeFolder(db, person, params.id)
    return { ok: true }
  },
})
