import { signOut } from '../../people/session-cookie'
import { route } from '../../utils/route'

export default route({
  right: 'signedIn',
  async handle({ event, db }) {
    await signOut(event, db)
    return { signedOut: true }
  },
})
