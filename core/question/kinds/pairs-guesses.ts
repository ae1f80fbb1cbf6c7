import { certain, gathered, summed, wholes, type Chances } from '../../kit/chances'
import { arrangements, choose, share } from '../../kit/counting'
import { Fraction, atLeast, exact } from '../../kit/exact'
import { inHundredths, mostSums, sharesOf, spreadOf, stepped } from './credits'
import { allCredits, creditOf, ofPairs, type PairsBody } from './pairs-score'

/** So many outcomes of guessing are told exactly; more are moved to the nearest of 400 steps. */
const mostExact = 20_000

/** So many pairs are right and so many wrong, with this chance. */
type Guessed = readonly [right: number, wrong: number, chance: number]

/**
 * What guessing earns, by numbers of pairs. Where they weigh differently, which of them are right is as likely as any other set:
 * how many sets of k pairs weigh so much is counted once.
 */
function valued(body: PairsBody, guessed: readonly Guessed[]): Chances {
  const belonging = body.items.filter((item) => item.target !== null)
  const hundredths = belonging.map(({ weight = 1 }) => Math.round(weight * 100))
  if (body.rule === 'all' || new Set(hundredths).size < 2)
    return gathered(
      guessed.map(([right, wrong, chance]) => [ofPairs(body, belonging.slice(0, right), wrong), chance] as const),
    )
  let sets = belonging.map(() => new Map<number, number>()).concat(new Map())
  sets[0]!.set(0, 1)
  for (const weight of hundredths) {
    const next = sets.map((each) => new Map(each))
    sets.forEach((each, k) => {
      for (const [weighed, count] of each)
        next[k + 1]?.set(weighed + weight, (next[k + 1]!.get(weighed + weight) ?? 0) + count)
    })
    sets = next
  }
  const all = hundredths.reduce((a, b) => a + b, 0)
  const outcomes = guessed.flatMap(([right, wrong, chance]) =>
    [...(sets[right] ?? [])].map(([weighed, count]) => ({
      weighed,
      wrong,
      chance: (chance * count) / Number(choose(belonging.length, right)),
    })),
  )
  const costs = exact(body.wrongCost).div(belonging.length)
  if (outcomes.length <= mostExact)
    return gathered(
      outcomes.map(({ weighed, wrong, chance }) => [
        atLeast(0, new Fraction(weighed, all).sub(costs.mul(wrong))),
        chance,
      ]),
    )
  const steps = new Map<number, number>()
  for (const { weighed, wrong, chance } of outcomes) {
    const at = Math.round(Math.max(0, weighed / all - costs.valueOf() * wrong) * 400)
    steps.set(at, (steps.get(at) ?? 0) + chance)
  }
  return wholes(steps, 400)
}

const belongingIn = (body: PairsBody) => body.items.filter((item) => item.target !== null).length

/** As many pairs as can be made, each target taken once: the matching problem, by inclusion and exclusion (Montmort 1713). */
export function matchingGuesses(body: PairsBody): Chances {
  if (body.rule === 'credits') return matchedCredits(body)
  const [n, m] = [body.items.length, body.targets.length]
  const pairs = Math.min(n, m)
  const most = Math.min(belongingIn(body), pairs)
  const ways = (set: number) => arrangements(Math.max(n, m) - set, pairs - set)
  return valued(
    body,
    Array.from({ length: most + 1 }, (_, right): Guessed => {
      let exactly = 0n
      for (let more = 0; more <= belongingIn(body) - right; more++)
        exactly += (more % 2 ? -1n : 1n) * choose(belongingIn(body) - right, more) * ways(right + more)
      const orders = choose(belongingIn(body), right) * exactly
      return [right, pairs - right, share(orders, ways(0))]
    }),
  )
}

/** Each thing goes to any group by itself; to none too, where something belongs nowhere. */
export function sortingGuesses(body: PairsBody): Chances {
  const nowhere = body.items.length > belongingIn(body)
  const places = body.targets.length + (nowhere ? 1 : 0)
  if (!places) return certain(0)
  if (body.rule === 'credits') return sortedCredits(body, nowhere)
  let chances = new Map([['0,0', 1]])
  for (const item of body.items) {
    const next = new Map<string, number>()
    for (const [key, chance] of chances) {
      const [right, wrong] = key.split(',').map(Number) as [number, number]
      const add = (r: number, w: number, share: number) => {
        const to = `${right + r},${wrong + w}`
        next.set(to, (next.get(to) ?? 0) + chance * share)
      }
      if (item.target !== null) add(1, 0, 1 / places)
      add(0, 1, (body.targets.length - (item.target === null ? 0 : 1)) / places)
      if (nowhere) add(0, 0, 1 / places)
    }
    chances = next
  }
  return valued(
    body,
    [...chances].map(([key, chance]): Guessed => {
      const [right, wrong] = key.split(',').map(Number) as [number, number]
      return [right, wrong, chance]
    }),
  )
}

/** In hundredths, a row for each thing. */
const creditsOf = (body: PairsBody): number[][] =>
  body.items.map((item) => body.targets.map(({ id }) => inHundredths(creditOf(body, item, id))))

const asShares = (body: PairsBody, step: number, sums: readonly (readonly [number, number])[]): Chances =>
  sharesOf(
    body,
    inHundredths(allCredits(body)),
    sums.map(([sum, chance]) => [sum * step, chance] as const),
  )

/** Things go to groups one by one, each independent of the others. */
function sortedCredits(body: PairsBody, nowhere: boolean): Chances {
  const credits = creditsOf(body)
  const { step, rows } = stepped(credits, spreadOf(credits))
  return asShares(
    body,
    step,
    summed(
      rows.map((row) => {
        const ways = nowhere ? [...row, 0] : row
        return ways.map((credit) => [credit, 1 / ways.length] as const)
      }),
    ),
  )
}

/** So many on the shorter and on the longer side of a matching: which of the shorter are taken is counted set by set. */
const mostByPair = { short: 10, long: 20 }
/** About so many additions are made at most: a question is written while others wait. */
const mostAdditions = 5_000_000

/** Why what guessing earns cannot be counted where each pair adds its own credit, in a sentence; null where it can. */
export const uncountable = ({
  items,
  targets,
}: {
  items: readonly unknown[]
  targets: readonly unknown[]
}): string | null =>
  Math.min(items.length, targets.length) > mostByPair.short || Math.max(items.length, targets.length) > mostByPair.long
    ? `Where each pair adds its own credit, a matching has at most ${mostByPair.short} pairs out of ${mostByPair.long} entries: what guessing earns could not be counted. Make two of it, or let its pairs earn a share.`
    : null

/**
 * Every way to make as many pairs as can be made, by which of the shorter side are taken: a dynamic programme over
 * subsets (Bellman 1962, Held & Karp 1962).
 */
function matchedCredits(body: PairsBody): Chances {
  const table = creditsOf(body)
  const [n, m] = [body.items.length, body.targets.length]
  const [short, long] = [Math.min(n, m), Math.max(n, m)]
  // What is not to be kept in the bank is not counted either.
  if (uncountable(body)) return certain(0)
  const columns = body.targets.map((_, j) => table.map((row) => row[j]!))
  const [byShort, byLong] = n >= m ? [columns, table] : [table, columns]
  const sets = setsBySize(short)
  // After so many of the longer side so many of the shorter are taken: not more than that, and enough for the rest.
  const sizes = Array.from({ length: long }, (_, a) => ({
    from: Math.max(1, short - (long - 1 - a)),
    to: Math.min(a + 1, short),
  }))
  let ways = 0
  for (const { from, to } of sizes) for (let size = from; size <= to; size++) ways += sets[size]!.length * size
  const { step, rows } = stepped(byLong, spreadOf(byShort), Math.min(mostSums, Math.max(200, mostAdditions / ways)))
  // A row of sums for each set, all counted from the lowest sum that may come.
  const reach = (far: (...credits: number[]) => number) =>
    byShort.reduce((sum, _, b) => sum + far(0, ...rows.map((row) => row[b]!)), 0)
  const low = reach(Math.min)
  const width = reach(Math.max) - low + 1
  const counts = new Float64Array(2 ** short * width)
  counts[-low] = 1
  /** Between which sums a set has any way so far. */
  const least = new Int32Array(2 ** short).fill(width)
  const last = new Int32Array(2 ** short).fill(-1)
  least[0] = last[0] = -low
  // Larger sets first: who stays alone leaves a set as it is; a pair comes from a set without its partner.
  rows.forEach((row, a) => {
    const { from, to } = sizes[a]!
    for (let size = to; size >= from; size--)
      for (const set of sets[size]!)
        for (let b = 0; b < short; b++) {
          if (!(set & (1 << b))) continue
          const before = set ^ (1 << b)
          const [from, to] = [least[before]!, last[before]!]
          const by = set * width + row[b]!
          for (let at = from; at <= to; at++) counts[by + at]! += counts[before * width + at]!
          if (to < from) continue
          least[set] = Math.min(least[set]!, from + row[b]!)
          last[set] = Math.max(last[set]!, to + row[b]!)
        }
  })
  const all = Number(arrangements(long, short))
  const whole = counts.subarray((2 ** short - 1) * width)
  return asShares(
    body,
    step,
    [...whole].flatMap((count, at): [number, number][] => (count > 0 ? [[at + low, count / all]] : [])),
  )
}

/** Sets of so many things, as bits, by how many are in them. */
function setsBySize(n: number): number[][] {
  const sets: number[][] = Array.from({ length: n + 1 }, () => [])
  for (let set = 0; set < 2 ** n; set++) {
    let size = 0
    for (let rest = set; rest; rest &= rest - 1) size++
    sets[size]!.push(set)
  }
  return sets
}
