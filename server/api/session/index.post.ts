import { z } from 'zod'
import { findPerson } from '../../people/people'
import { currentSession } from '../../people/current-session'
import { signIn } from '../../people/sign-in'
import { route } from '../../utils/route'
import { beginSession } from '../../people/session-cookie'

export default route({
  right: 'anyone',
  body: z.strictObject({ email: z.string().max(190), password: z.string().max(200) }),
  async handle({ event, db, body, now }) {
    const person = await findPerson(db, await signIn(db, body.email, body.password, now))
    await beginSession(event, person!)
    return currentSession(db, person!, now)
  },
})
