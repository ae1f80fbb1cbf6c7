import { z } from 'zod'
import { findPerson } from '../../people/people'
import { currentSession } from '../../people/current-session'
import { signInto } from '../../people/session-cookie'
import { joinAsNew, newcomer } from '../../domain/classes/joining'
import { route } from '../../utils/route'

/** Somebody who is new joins a class by its code, and is signed in. */
export default route({
  right: 'anyone',
  body: newcomer.extend({ code: z.string().max(60) }),
  async handle({ event, db, body: { code, ...who }, address, now }) {
    const person = (await findPerson(db, await joinAsNew(db, code, who, address, now)))!
    await signInto(event, db, person.id, now)
    return currentSession(db, person, now)
  },
})
