import { DateTime } from 'luxon'
import type { Instant } from './time'
import { iso } from './time'

/**
 * The instant that a local time of the school means (semantics, head): a time that does not exist moves
 * forward by the gap, an ambiguous one is the earlier.
 * @param local "2030-05-14T19:00", as a date-and-time field gives it
 * @param zone IANA name
 */
export function fromLocal(local: string, zone: string): Instant {
  const read = DateTime.fromISO(local, { zone })
  if (!read.isValid) throw new RangeError(`"${local}" is not a date and time.`)
  const possible = read.getPossibleOffsets().map((at) => at.toMillis())
  return iso(Math.min(...possible))
}

/** The local date and time of an instant, as a date-and-time field takes it. */
export function toLocal(at: Instant, zone: string): string {
  return DateTime.fromISO(at, { zone }).toFormat("yyyy-MM-dd'T'HH:mm")
}
