/** A UTC instant as ISO 8601 with milliseconds and Z. All instants compare as text. */
export type Instant = string

export const second = 1000
export const minute = 60 * second
export const day = 24 * 60 * minute

export function ms(at: Instant): number {
  return Date.parse(at)
}

export function iso(milliseconds: number): Instant {
  return new Date(milliseconds).toISOString()
}

export function plus(at: Instant, milliseconds: number): Instant {
  return iso(ms(at) + milliseconds)
}

/** The earlier of two instants; null stands for "never" and is later than all. */
export function earlier(a: Instant | null, b: Instant | null): Instant | null {
  if (a === null) return b
  if (b === null) return a
  return a <= b ? a : b
}

/** The later of two instants; null stands for "never" and is later than all. */
export function later(a: Instant | null, b: Instant | null): Instant | null {
  if (a === null || b === null) return null
  return a >= b ? a : b
}

/**
 * When something has ended at the latest: at an instant, never, or, where there is nobody and nothing to wait for,
 * before all.
 */
export type End = { is: 'at'; at: Instant } | { is: 'never' } | { is: 'beforeAll' }
export const never: End = { is: 'never' }
export const beforeAll: End = { is: 'beforeAll' }

/** An end at an instant; null is never. */
export function endAt(at: Instant | null): End {
  return at === null ? never : { is: 'at', at }
}

/** The latest of several ends; before all for none. */
export function latest(ends: readonly End[]): End {
  return ends.reduce<End>((last, end) => {
    if (last.is === 'never' || end.is === 'beforeAll') return last
    if (end.is === 'never' || last.is === 'beforeAll') return end
    return end.at > last.at ? end : last
  }, beforeAll)
}

/** Whether an end has come. */
export function hasEnded(end: End, now: Instant): boolean {
  return end.is === 'beforeAll' || (end.is === 'at' && end.at <= now)
}

/** The instant of an end, or null where it has none. */
export function instantOfEnd(end: End): Instant | null {
  return end.is === 'at' ? end.at : null
}
