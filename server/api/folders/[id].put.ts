import { z } from 'zod'
import { id } from '../../../core/question'
import { changeFolder, folderChange } from '../../domain/bank/describing/folders'
import { route } from '../../utils/route'

/** Renames a folder, or puts it into another. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: folderChange,
  async handle({ db, person, params, body }) {
    await changeFolder(db, person, params.id, body)
    return { ok: true }
  },
})
