import { iso, type Instant } from '../../core/kit/time'

/**
 * How values cross to MariaDB and back: instants as DATETIME(3) in UTC, JSON as text, decimals as text.
 * "Never" is kept as the far end of the calendar, so that guards and indexes compare it like any instant.
 */
const never = '9999-12-31 00:00:00.000'

export function toSql(at: Instant): string {
  return at.slice(0, 10) + ' ' + at.slice(11, 23)
}

export function toSqlOrNever(at: Instant | null): string {
  return at === null ? never : toSql(at)
}

/** Reads "2030-05-14 19:00:00.000", as mysql2 gives it with dateStrings. */
export function fromSql(text: string): Instant {
  return iso(Date.parse(text.replace(' ', 'T') + 'Z'))
}

export function fromSqlOrNever(text: string | null): Instant | null {
  return text === null || text === never ? null : fromSql(text)
}

export function toJson(value: unknown): string {
  return JSON.stringify(value)
}

export function fromJson<T>(text: string): T {
  return JSON.parse(text) as T
}
