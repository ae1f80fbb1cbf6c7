import { z } from 'zod'
import { changePassword } from '../../people/own-password'
import { signInto } from '../../people/session-cookie'
import { route } from '../../utils/route'

/** Changes one's own password: everywhere else one is signed out. */
export default route({
  right: 'signedIn',
  body: z.strictObject({ current: z.string().max(1000), next: z.string().max(1000) }),
  async handle({ event, db, person, body, now }) {
    await changePassword(db, person, body, now)
    await signInto(event, db, person.id, now)
    return { changed: true }
  },
})
