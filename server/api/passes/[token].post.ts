import { z } from 'zod'
import { currentSession } from '../../people/current-session'
import { usePass } from '../../people/passes'
import { findPerson } from '../../people/people'
import { signInto } from '../../people/session-cookie'
import { route } from '../../utils/route'

/** Uses a link: sets the password, and signs in. */
export default route({
  right: 'anyone',
  params: z.object({ token: z.string().max(100) }),
  body: z.strictObject({ password: z.string().max(1000) }),
  async handle({ event, db, params, body, now }) {
    const person = (await findPerson(db, await usePass(db, params.token, body.password, now)))!
    await signInto(event, db, person.id, now)
    return currentSession(db, person, now)
  },
})
