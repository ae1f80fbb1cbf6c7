import type { H3Event } from 'h3'
import { staysHere } from '../standins/mail/post'

/**
 * Where Thistle is reached, for links in letters: THISTLE_ADDRESS. Where letters stay on this machine the address that
 * the request came by will do; a letter that leaves never carries one that whoever asks has chosen.
 */
export function ownAddress(event: H3Event): string {
  const set = process.env.THISTLE_ADDRESS?.replace(/\/+$/, '')
  if (set) return set
  if (!staysHere()) throw new Error('THISTLE_ADDRESS is not set: letters by THISTLE_SMTP need it for their links.')
  return getRequestURL(event).origin
}
