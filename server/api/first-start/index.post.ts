import { firstStart, makeSchool } from '../../domain/people/first-start'
import { currentSession } from '../../people/current-session'
import { findPerson } from '../../people/people'
import { signInto } from '../../people/session-cookie'
import { route } from '../../utils/route'

/** Lays out the school and its first teacher, where there is none yet, and signs them in. */
export default route({
  right: 'anyone',
  body: firstStart,
  async handle({ event, db, body, now }) {
    const person = (await findPerson(db, await makeSchool(db, body, now)))!
    await signInto(event, db, person.id, now)
    return currentSession(db, person, now)
  },
})
