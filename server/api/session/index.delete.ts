import { route } from '../../utils/route'

export default route({
  right: 'signedIn',
  async handle({ event }) {
    await clearUserSession(event)
    return { signedOut: true }
  },
})
