import { z } from 'zod'
import { countForgotten, writeForgotten } from '../../people/own-password'
import { ownAddress } from '../../own-address'
import { route } from '../../utils/route'

/** Asks for a link by mail. The reply is the same, and comes as quickly, whoever has the address. */
export default route({
  right: 'anyone',
  body: z.strictObject({ email: z.string().max(190) }),
  async handle({ event, db, body, address, now }) {
    await countForgotten(db, body.email, address, now)
    // Also where the connection was lost before the answer arrived.
    event.node.res.once('close', () => {
      writeForgotten(db, body.email, ownAddress(), now).catch((error: unknown) => {
        console.error('A link for a forgotten password could not be written.', error)
      })
    })
    return { written: true }
  },
})
