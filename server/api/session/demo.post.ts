import { z } from 'zod'
import { id } from '../../../core/question'
import { demoPeople, findPerson } from '../../people/people'
import { currentSession } from '../../people/current-session'
import { notFound } from '../../domain/problem'
import { route } from '../../utils/route'
import { signInto } from '../../people/session-cookie'

/** Signs in as somebody of the demo school: only where THISTLE_DEMO is not off, and only its made-up people. */
export default route({
  right: 'anyone',
  body: z.strictObject({ person: id }),
  async handle({ event, db, body, now }) {
    const known = process.env.THISTLE_DEMO !== 'off' && (await demoPeople(db)).some((each) => each.id === body.person)
    const person = known ? await findPerson(db, body.person) : undefined
    if (!person) throw notFound('This person')
    await signInto(event, db, person.id, now)
    return currentSession(db, person, now)
  },
})
