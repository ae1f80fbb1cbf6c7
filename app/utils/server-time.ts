import { iso, type Instant } from '~~/core/kit/time'

/** How far the server's clock is ahead of this device's, in milliseconds. Only the server's time counts. */
let ahead = 0

/** Takes the server's time from a reply. */
export function setServerTime(now: Instant): void {
  ahead = Date.parse(now) - Date.now()
}

/** What time it is by the server’s clock, as far as its last reply told. */
export function serverTime(): Instant {
  return iso(Date.now() + ahead)
}
