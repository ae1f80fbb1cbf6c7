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

/** A change of the clocks (summer time begins or ends): when it is, and by how many minutes they go forward. */
export interface ClockChange {
  at: Instant
  /** Below 0 where they go back. */
  forward: number
}

/** The first change of a zone's clocks between two instants, to the minute; null where both ends have one offset. */
export function clockChangeWithin(from: Instant, to: Instant, zone: string): ClockChange | null {
  const unit = 60_000
  const offsetAt = (minutes: number): number => DateTime.fromMillis(minutes * unit, { zone }).offset
  let [before, after] = [Math.floor(Date.parse(from) / unit), Math.ceil(Date.parse(to) / unit)]
  const offset = offsetAt(before)
  if (after <= before || offsetAt(after) === offset) return null
  while (after - before > 1) {
    const middle = Math.floor((before + after) / 2)
    if (offsetAt(middle) === offset) before = middle
    else after = middle
  }
  return { at: iso(after * unit), forward: offsetAt(after) - offset }
}
