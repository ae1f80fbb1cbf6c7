/** A UTC instant as ISO 8601 with milliseconds and Z. All instants compare as text. */
export type Instant = string

export const minute = 60_000
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
