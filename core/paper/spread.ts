import type { Random } from '../kit/random'
import type { DrawRow, Spread } from '../quiz/schema'

/** What spreading looks at; the first objective is the main one. */
export interface Described {
  objectives: readonly string[]
  difficulty: number
}

/** The stratum of a question; questions that nothing is known of share one. */
function stratumOf(described: Described | undefined, spread: Spread): string {
  const objective = described?.objectives[0] ?? ''
  const difficulty = String(described?.difficulty ?? '')
  return spread === 'objectives' ? objective : spread === 'difficulty' ? difficulty : `${objective}|${difficulty}`
}

/** The strata of a row's draw, or undefined where it is not spread. */
export function stratumFor(
  row: DrawRow,
  describe: (question: string) => Described | undefined,
): ((question: string) => string) | undefined {
  const spread = row.type === 'pool' ? row.spread : 'none'
  return spread === 'none' ? undefined : (question) => stratumOf(describe(question), spread)
}

/** How many each stratum gives for one start of the systematic rounding. @param start 0 ≤ start < the sum of the sizes */
function quotasFrom(sizes: readonly number[], draw: number, start: number): number[] {
  const total = sizes.reduce((a, b) => a + b, 0)
  let before = 0
  let given = 0
  return sizes.map((size) => {
    before += size
    const upTo = Math.floor((draw * before + start) / total)
    const here = upTo - given
    given = upTo
    return here
  })
}

/**
 * How many questions each stratum gives: floor or ceiling of its share, by random systematic rounding, so that every
 * question keeps the inclusion chance n/N (semantics §4.3; Hartley & Rao 1962, Annals of Mathematical Statistics 33).
 * @param sizes of the strata @param draw n, at most the sum of the sizes
 */
export function drawQuotas(sizes: readonly number[], draw: number, random: Random): number[] {
  const total = sizes.reduce((a, b) => a + b, 0)
  return total === 0 ? [] : quotasFrom(sizes, draw, random.below(total))
}

/** Every set of quotas that `drawQuotas` may give, with its chance: at most one more than there are strata. */
export function quotaPatterns(sizes: readonly number[], draw: number): { quotas: number[]; chance: number }[] {
  const total = sizes.reduce((a, b) => a + b, 0)
  if (total === 0) return []
  const breaks = new Set([0])
  let before = 0
  for (const size of sizes) {
    before += size
    breaks.add((total - ((draw * before) % total)) % total)
  }
  const starts = [...breaks].sort((a, b) => a - b)
  return starts.map((start, i) => ({
    quotas: quotasFrom(sizes, draw, start),
    chance: ((starts[i + 1] ?? total) - start) / total,
  }))
}
