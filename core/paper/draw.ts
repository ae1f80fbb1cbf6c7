import { shuffled, type Random } from '../kit/random'
import { drawQuotas } from './spread'

/** What one pool needs: n different questions out of those it holds. */
export interface Demand {
  id: string
  holds: readonly string[]
  draw: number
  /** The stratum of a question where the draw is spread (semantics §4.3); what is not known belongs to one more. */
  stratum?: (question: string) => string
}

/** Lower is drawn earlier: 0 for unseen questions, more for those seen lately (semantics §4.4). */
export type Rank = (question: string) => number

/** The questions of a demand by stratum, in an order that does not hang on theirs; one where nothing is spread. */
export function strata({ holds, stratum }: Pick<Demand, 'holds' | 'stratum'>): string[][] {
  if (!stratum) return holds.length ? [[...holds]] : []
  const members = new Map<string, string[]>()
  for (const question of holds) {
    const key = stratum(question)
    const known = members.get(key)
    if (known) known.push(question)
    else members.set(key, [question])
  }
  return [...members].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, questions]) => questions)
}

/** n questions: of each stratum as many as its quota, uniformly and by rank within it. */
function pickSpread(demand: Demand, rank: Rank | null, random: Random): string[] {
  if (!demand.stratum) return pick(demand.holds, demand.draw, rank, random)
  const groups = strata(demand)
  const quotas = drawQuotas(
    groups.map((group) => group.length),
    demand.draw,
    random,
  )
  // Mixed again: a paper in kept order does not begin with the same stratum each time.
  return shuffled(
    groups.flatMap((group, i) => pick(group, quotas[i]!, rank, random)),
    random,
  )
}

/** Assigns a question to each open slot: slot index → question. */
class Matching {
  readonly slotOf = new Map<string, number>()
  readonly questionOf = new Map<number, string>()

  constructor(private readonly slots: readonly { holds: readonly string[] }[]) {}

  /** Finds an augmenting path for a slot (Kuhn's algorithm), without the questions in `closed`. */
  augment(slot: number, closed: ReadonlySet<string>, visited = new Set<string>()): boolean {
    for (const question of this.slots[slot]!.holds) {
      if (closed.has(question) || visited.has(question)) continue
      visited.add(question)
      const holder = this.slotOf.get(question)
      if (holder === undefined || this.augment(holder, closed, visited)) {
        this.assign(slot, question)
        return true
      }
    }
    return false
  }

  assign(slot: number, question: string): void {
    this.slotOf.set(question, slot)
    this.questionOf.set(slot, question)
  }

  release(slot: number): void {
    const question = this.questionOf.get(slot)
    if (question !== undefined && this.slotOf.get(question) === slot) this.slotOf.delete(question)
    this.questionOf.delete(slot)
  }
}

const slotsOf = (demands: readonly Demand[]) =>
  demands.flatMap((demand) => Array.from({ length: demand.draw }, () => ({ pool: demand, holds: demand.holds })))

/** The ids of pools that cannot all be satisfied beside the claimed questions; empty when they can. */
export function unsatisfiable(demands: readonly Demand[], claimed: ReadonlySet<string>): string[] {
  const slots = slotsOf(demands)
  const matching = new Matching(slots)
  const failed = slots.flatMap((slot, index) => (matching.augment(index, claimed) ? [] : [slot.pool.id]))
  return [...new Set(failed)]
}

function areDisjoint(demands: readonly Demand[]): boolean {
  const seen = new Set<string>()
  for (const { holds } of demands) {
    for (const question of holds) {
      if (seen.has(question)) return false
      seen.add(question)
    }
  }
  return true
}

/** n of the candidates, lowest rank first and uniformly within a rank (partial Fisher–Yates). */
function pick(candidates: readonly string[], n: number, rank: Rank | null, random: Random): string[] {
  if (!rank) {
    const pool = [...candidates]
    for (let i = 0; i < n; i++) {
      const other = i + random.below(pool.length - i)
      ;[pool[i], pool[other]] = [pool[other]!, pool[i]!]
    }
    return pool.slice(0, n)
  }
  const chosen: string[] = []
  for (const tier of tiers(candidates, rank)) {
    chosen.push(...pick(tier, Math.min(tier.length, n - chosen.length), null, random))
    if (chosen.length === n) break
  }
  return chosen
}

function tiers(candidates: readonly string[], rank: Rank): string[][] {
  const byRank = new Map<number, string[]>()
  for (const question of candidates) {
    const value = rank(question)
    byRank.set(value, [...(byRank.get(value) ?? []), question])
  }
  return [...byRank].sort(([a], [b]) => a - b).map(([, members]) => members)
}

export class CannotDraw extends Error {
  override name = 'CannotDraw'
  constructor(readonly pools: string[]) {
    super('The pools do not hold enough different questions.')
  }
}

/**
 * Draws for every pool, in running order: each question uniformly among those that leave every later draw
 * satisfiable (semantics §4.2). For disjoint pools this is a plain uniform draw, or one spread over strata (§4.3).
 * @param claimed questions that fixed rows hold
 * @param rank preference for a further attempt, or null
 * @returns pool id → questions drawn
 * @throws CannotDraw naming the pools that cannot be satisfied
 */
export function drawPools(
  demands: readonly Demand[],
  claimed: ReadonlySet<string>,
  rank: Rank | null,
  random: Random,
): Map<string, string[]> {
  const open = demands.map((demand) =>
    demand.holds.some((question) => claimed.has(question))
      ? { ...demand, holds: demand.holds.filter((question) => !claimed.has(question)) }
      : demand,
  )
  if (areDisjoint(open)) {
    const short = open.filter((demand) => demand.holds.length < demand.draw)
    if (short.length) throw new CannotDraw(short.map((demand) => demand.id))
    return new Map(open.map((demand) => [demand.id, pickSpread(demand, rank, random)]))
  }
  const impossible = unsatisfiable(open, new Set())
  if (impossible.length) throw new CannotDraw(impossible)
  return drawOverlapping(open, rank, random)
}

/** For each question of a demand, the stratum that it should come from; nothing where the draw is not spread. */
function wantedStrata(demand: Demand, random: Random): (string | undefined)[] {
  const { stratum } = demand
  if (!stratum) return Array.from({ length: demand.draw }, () => undefined)
  const groups = strata(demand)
  const quotas = drawQuotas(
    groups.map((group) => group.length),
    demand.draw,
    random,
  )
  return shuffled(
    groups.flatMap((group, i) => Array.from({ length: quotas[i]! }, () => stratum(group[0]!))),
    random,
  )
}

/** Ranks what is of the wanted stratum before all else: satisfiable, then spread, then unseen (semantics §4.4). */
function inStratum({ stratum }: Demand, wanted: string | undefined, rank: Rank | null): Rank | null {
  if (!stratum || wanted === undefined) return rank
  return (question) => (rank?.(question) ?? 0) + (stratum(question) === wanted ? 0 : beyondRanks)
}
/** More than any attempt's number. */
const beyondRanks = 1e6

function drawOverlapping(demands: readonly Demand[], rank: Rank | null, random: Random): Map<string, string[]> {
  const slots = slotsOf(demands)
  const matching = new Matching(slots)
  slots.forEach((_, index) => matching.augment(index, new Set()))
  const drawn = new Set<string>()
  const result = new Map<string, string[]>(demands.map((demand) => [demand.id, []]))
  const wanted = demands.flatMap((demand) => wantedStrata(demand, random))
  slots.forEach((slot, index) => {
    const question = drawOne(
      index,
      slot.holds.filter((each) => !drawn.has(each)),
      matching,
      drawn,
      inStratum(slot.pool, wanted[index], rank),
      random,
    )
    drawn.add(question)
    result.get(slot.pool.id)!.push(question)
  })
  return result
}

/** Tries candidates in uniform order, best rank first, until one leaves the later slots satisfiable. */
function drawOne(
  slot: number,
  candidates: string[],
  matching: Matching,
  drawn: ReadonlySet<string>,
  rank: Rank | null,
  random: Random,
): string {
  for (const tier of rank ? tiers(candidates, rank) : [candidates]) {
    const left = [...tier]
    while (left.length) {
      const [question] = left.splice(random.below(left.length), 1) as [string]
      if (take(slot, question, matching, drawn)) return question
    }
  }
  throw new CannotDraw([])
}

/** Gives the question to the slot if whoever held it can be given another. */
function take(slot: number, question: string, matching: Matching, drawn: ReadonlySet<string>): boolean {
  const holder = matching.slotOf.get(question)
  if (holder === slot) return true
  const mine = matching.questionOf.get(slot)!
  matching.release(slot)
  if (holder === undefined) {
    matching.assign(slot, question)
    return true
  }
  matching.release(holder)
  matching.assign(slot, question)
  if (matching.augment(holder, new Set([...drawn, question]))) return true
  matching.release(slot)
  matching.assign(slot, mine)
  matching.assign(holder, question)
  return false
}
