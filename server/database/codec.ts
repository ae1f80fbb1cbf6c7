import { iso, type Instant } from '../../core/kit/time'

/**
 * How values cross to MariaDB and back: instants as DATETIME(3) in UTC, JSON as text, decimals as text.
 * "Never" is kept as the far end of the calendar, so that guards and indexes compare it like any instant.
 */
const never = '9999-12-31 00:00:00.000'

/** An instant as DATETIME(3) in UTC. */
export function toSql(at: Instant): string {
  return at.slice(0, 10) + ' ' + at.slice(11, 23)
}

/** An instant as DATETIME(3); null, which means never, as the far end of the calendar. */
export function toSqlOrNever(at: Instant | null): string {
  return at === null ? never : toSql(at)
}

/** Reads "2030-05-14 19:00:00.000", as mysql2 gives it with dateStrings. */
export function fromSql(text: string): Instant {
  return iso(Date.parse(text.replace(' ', 'T') + 'Z'))
}

/** What `toSqlOrNever` wrote, or an empty column: null means never. */
export function fromSqlOrNever(text: string | null): Instant | null {
  return text === null || text === never ? null : fromSql(text)
}

/** A value as text for a JSON column. */
export function toJson(value: unknown): string {
  return JSON.stringify(value)
}

/**
 * The text of a JSON column as it was written; documents are read by `server/documents` instead. Throws where it is no
 * JSON.
 */
export function fromJson<T>(text: string): T {
  return JSON.parse(text) as T
}
