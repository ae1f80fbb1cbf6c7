import { getCookie } from 'h3'
import { linkNotices } from '../../people/link-notices'
import { sessionCookie } from '../../people/session-cookie'
import { route } from '../../utils/route'

/** What whoever is signed in has to be told: links for a new password that others made for them. */
export default route({
  right: 'signedIn',
  handle: async ({ event, db }) => ({ links: await linkNotices(db, getCookie(event, sessionCookie)!) }),
})
