import { endSessionsOf } from '../../people/sessions'
import { signOut } from '../../people/session-cookie'
import { recordLine } from '../../domain/record'
import { route } from '../../utils/route'

/** Signs out on every device. */
export default route({
  right: 'signedIn',
  async handle({ event, db, person, now }) {
    await endSessionsOf(db, person.id)
    await recordLine(db, now, person.id, 'signed out everywhere', person.id)
    await signOut(event, db)
    return { signedOut: true }
  },
})
