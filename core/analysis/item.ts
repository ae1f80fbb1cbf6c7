/** One student's answer to a question: the share it earned, and the share of the rest of the paper; null where there is no rest that is marked. */
export interface ItemResponse {
  share: number
  rest: number | null
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

/** The mean share that n first answers earned; null below the least. @param earned sum of the shares, those below 0 as 0 */
export function facilityOf(n: number, earned: number): number | null {
  return n < least ? null : earned / n
}

/** Facility, and discrimination as the correlation of the share earned with the share of what else the student was given. */
export function itemFigures(responses: readonly ItemResponse[]): ItemFigures {
  const n = responses.length
  const pairs = responses.flatMap(({ share, rest }) => (rest === null ? [] : [[share, rest] as const]))
  return {
    n,
    facility: facilityOf(
      n,
      responses.reduce((all, response) => all + Math.max(0, response.share), 0),
    ),
    discrimination: pairs.length < least ? null : correlation(pairs),
  }
}
