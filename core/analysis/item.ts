/** One student's answer to a question: the share it earned, and the share of the rest of the paper. */
export interface ItemResponse {
  share: number
  rest: number
}

export interface ItemFigures {
  n: number
  /** Mean share earned; null below 8 responses. */
  facility: number | null
  /** Corrected item–total correlation; null below 8 responses or where one of the two does not vary. */
  discrimination: number | null
}

/** Nothing is told below this many responses (semantics §10). */
export const least = 8

/** Product-moment correlation, or null where one side does not vary. */
export function correlation(pairs: readonly (readonly [number, number])[]): number | null {
  const n = pairs.length
  const mean = (side: 0 | 1) => pairs.reduce((all, pair) => all + pair[side], 0) / n
  const [a, b] = [mean(0), mean(1)]
  let [ab, aa, bb] = [0, 0, 0]
  for (const [x, y] of pairs) {
    ab += (x - a) * (y - b)
    aa += (x - a) ** 2
    bb += (y - b) ** 2
  }
  return aa < 1e-12 || bb < 1e-12 ? null : ab / Math.sqrt(aa * bb)
}

/** Facility, and discrimination as the correlation of the share earned with the share of what else the student was given. */
export function itemFigures(responses: readonly ItemResponse[]): ItemFigures {
  const n = responses.length
  if (n < least) return { n, facility: null, discrimination: null }
  return {
    n,
    facility: responses.reduce((all, response) => all + Math.max(0, response.share), 0) / n,
    discrimination: correlation(responses.map((response) => [response.share, response.rest] as const)),
  }
}
