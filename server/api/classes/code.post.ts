import { z } from 'zod'
import { classByCode } from '../../domain/classes/join-codes'
import { route } from '../../utils/route'

/** What a join code is for, before anything is done. */
export default route({
  right: 'anyone',
  body: z.strictObject({ code: z.string().max(60) }),
  async handle({ db, person, body, address, now }) {
    const { name } = await classByCode(db, body.code, { address, person }, now)
    return { name }
  },
})
