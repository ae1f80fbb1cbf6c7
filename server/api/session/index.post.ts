import { z } from 'zod'
import { findPerson } from '../../people/people'
import { currentSession } from '../../people/current-session'
import { signIn } from '../../people/sign-in'
import { route } from '../../utils/route'
import { knownBrowser, signInto } from '../../people/session-cookie'

export default route({
  right: 'anyone',
  body: z.strictObject({ email: z.string().max(190), password: z.string().max(200) }),
  async handle({ event, db, body, address, now }) {
    const from = { address, browser: knownBrowser(event) }
    const person = await findPerson(db, await signIn(db, body.email, body.password, from, now))
    await signInto(event, db, person!.id, now)
    return currentSession(db, person!, now)
  },
})
