import { getCookie } from 'h3'
import { noteLinkNotices } from '../../people/link-notices'
import { sessionCookie } from '../../people/session-cookie'
import { route } from '../../utils/route'

/** They have read what they had to be told. */
export default route({
  right: 'signedIn',
  async handle({ event, db, now }) {
    await noteLinkNotices(db, getCookie(event, sessionCookie)!, now)
    return { read: true }
  },
})
