import { z } from 'zod'
import { comeIn, comeInRequest } from '../../domain/links/come-in'
import { currentSession } from '../../people/current-session'
import { findPerson } from '../../people/people'
import { signInto } from '../../people/session-cookie'
import { route } from '../../utils/route'

/** Somebody comes in by a link; a guest is signed in. */
export default route({
  right: 'anyone',
  params: z.object({ token: z.string().max(100) }),
  body: comeInRequest,
  async handle({ event, db, person, params, body, address, now }) {
    const { person: id, quiz, made } = await comeIn(db, person, params.token, body, address, now)
    const who = (await findPerson(db, id))!
    if (made) await signInto(event, db, id, now)
    return { quiz, session: await currentSession(db, who, now) }
  },
})
