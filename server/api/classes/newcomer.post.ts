import { z } from 'zod'
import { findPerson } from '../../people/people'
import { currentSession } from '../../people/current-session'
import { signInto } from '../../people/session-cookie'
import { joinAsNew, joiner } from '../../domain/classes/joining'
import { route } from '../../utils/route'

/** Somebody joins a class by its code: as new, or to the place that the class has for them. They are signed in. */
export default route({
  right: 'anyone',
  body: joiner.extend({ code: z.string().max(60) }),
  async handle({ event, db, body: { code, ...who }, address, now }) {
    const person = (await findPerson(db, await joinAsNew(db, code, who, address, now)))!
    await signInto(event, db, person.id, now)
    return currentSession(db, person, now)
  },
})
