import type { Value } from './database'

/** A part of a statement with the values that it takes. */
export interface Part {
  sql: string
  values: Value[]
}

/** What a column becomes, row by row: many rows in one statement. Rows that are not named become NULL: name them in WHERE. */
export function byKey(key: string, entries: readonly (readonly [key: Value, value: Value])[]): Part {
  return { sql: `CASE ${key} ${entries.map(() => 'WHEN ? THEN ?').join(' ')} END`, values: entries.flat() }
}
