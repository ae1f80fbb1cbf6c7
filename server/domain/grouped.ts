/** Rows by a key of theirs, in their order. */
export function grouped<T>(rows: readonly T[], keyOf: (row: T) => string): Map<string, T[]> {
  const result = new Map<string, T[]>()
  for (const row of rows) {
    const key = keyOf(row)
    const group = result.get(key)
    if (group) group.push(row)
    else result.set(key, [row])
  }
  return result
}
