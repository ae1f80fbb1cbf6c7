/** A document with every text in it mapped; names, numbers and the rest stay as they are. */
export function eachText<T>(value: T, map: (text: string) => string): T {
  const through = (each: unknown): unknown => {
    if (typeof each === 'string') return map(each)
    if (Array.isArray(each)) return each.map(through)
    if (typeof each !== 'object' || each === null) return each
    return Object.fromEntries(Object.entries(each).map(([name, part]) => [name, through(part)]))
  }
  return through(value) as T
}
