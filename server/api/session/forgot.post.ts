import { z } from 'zod'
import { forgotPassword } from '../../people/own-password'
import { ownAddress } from '../../utils/own-address'
import { route } from '../../utils/route'

/** Asks for a link by mail. The reply is the same whoever has the address. */
export default route({
  right: 'anyone',
  body: z.strictObject({ email: z.string().max(190) }),
  async handle({ event, db, body, address, now }) {
    await forgotPassword(db, body.email, { address, at: ownAddress(event) }, now)
    return { written: true }
  },
})
