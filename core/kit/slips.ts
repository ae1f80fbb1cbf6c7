/**
 * Damerau–Levenshtein distance: the fewest insertions, deletions, replacements and swaps of neighbours that turn one
 * text into the other (Damerau 1964, Comm. ACM 7(3); computed as Lowrance and Wagner 1975, J. ACM 22(2)). Counts
 * characters as people see them in most scripts: Unicode code points.
 */
export function slipsBetween(a: string, b: string): number {
  const [from, to] = [[...a], [...b]]
  const far = from.length + to.length
  const width = to.length + 2
  const cost = new Int32Array((from.length + 2) * width)
  const at = (i: number, j: number) => (i + 1) * width + j + 1
  cost[at(-1, -1)] = far
  for (let i = 0; i <= from.length; i++) {
    cost[at(i, -1)] = far
    cost[at(i, 0)] = i
  }
  for (let j = 0; j <= to.length; j++) {
    cost[at(-1, j)] = far
    cost[at(0, j)] = j
  }
  const lastRow = new Map<string, number>()
  for (let i = 1; i <= from.length; i++) {
    let lastMatch = 0
    for (let j = 1; j <= to.length; j++) {
      const row = lastRow.get(to[j - 1]!) ?? 0
      const column = lastMatch
      const same = from[i - 1] === to[j - 1]
      if (same) lastMatch = j
      cost[at(i, j)] = Math.min(
        cost[at(i - 1, j - 1)]! + (same ? 0 : 1),
        cost[at(i, j - 1)]! + 1,
        cost[at(i - 1, j)]! + 1,
        cost[at(row - 1, column - 1)]! + (i - row - 1) + 1 + (j - column - 1),
      )
    }
    lastRow.set(from[i - 1]!, i)
  }
  return cost[at(from.length, to.length)]!
}
