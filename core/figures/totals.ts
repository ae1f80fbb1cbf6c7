import { Fraction, exact, type Exact } from '../kit/exact'
import type { Chances } from '../kit/chances'
import type { Draw, Papers, Pool, Worth } from './papers'

/** Chances of a total in cells: `chances[i]` is that of `low + i`. */
interface Cells {
  low: number
  chances: Float64Array
}

/** The distribution of a total of points, cell by cell. */
export interface Totals extends Cells {
  /** Cells a point: a total of c cells is c / cells points. */
  cells: number
  /** By how many points a total may be off; 0 where the lattice of the points is fine enough. */
  error: number
}

/** The points that a question gives, each with its chance. */
export type Outcomes = (worth: Worth) => Chances

/** Cells that a total may take; beyond them points are put on a grid. */
const mostCells = 20_000

const gcd = (a: bigint, b: bigint): bigint => (b === 0n ? a : gcd(b, a % b))

/** Outcomes in cells, remembered for each question and its points. */
interface InCells {
  at: number[]
  chance: number[]
}

interface Lattice {
  cells: number
  error: number
  of: (worth: Worth) => InCells
}

/** A lattice on which all totals of these questions lie exactly, or the finest grid that is allowed. @param size questions on a paper */
function latticeFor(worths: readonly Worth[], size: number, outcomes: Outcomes): Lattice {
  const known = new Map<string, InCells>()
  const values = new Map<string, { value: Fraction; chance: number }[]>()
  const name = ({ question, points }: Worth) => `${question}|${points}`
  let common = 1n
  let widest = 0
  for (const worth of worths) {
    const key = name(worth)
    if (values.has(key)) continue
    const found = outcomes(worth).map(({ value, chance }) => ({ value: exact(value), chance }))
    values.set(key, found)
    for (const { value } of found) {
      if (common < 1_000_000_000n) common = (common / gcd(common, value.d)) * value.d
      widest = Math.max(widest, Math.abs(value.valueOf()))
    }
  }
  const range = Math.max(1, widest * size)
  const exactly = Number(common) * range <= mostCells
  const cells = exactly ? Number(common) : Math.max(1, Math.floor(mostCells / range))
  for (const [key, found] of values) {
    const byCell = new Map<number, number>()
    for (const { value, chance } of found) {
      const at = Math.round(value.mul(cells).valueOf())
      byCell.set(at, (byCell.get(at) ?? 0) + chance)
    }
    known.set(key, { at: [...byCell.keys()], chance: [...byCell.values()] })
  }
  return { cells, error: exactly ? 0 : size / (2 * cells), of: (worth) => known.get(name(worth))! }
}

const nothing: Cells = { low: 0, chances: Float64Array.of(1) }

function sumOf(a: Cells, b: Cells): Cells {
  const [long, short] = a.chances.length >= b.chances.length ? [a.chances, b.chances] : [b.chances, a.chances]
  const chances = new Float64Array(long.length + short.length - 1)
  for (let i = 0; i < short.length; i++) {
    const chance = short[i]!
    if (chance === 0) continue
    for (let j = 0; j < long.length; j++) chances[i + j]! += chance * long[j]!
  }
  return { low: a.low + b.low, chances }
}

function one({ at, chance }: InCells): Cells {
  const low = Math.min(...at)
  const chances = new Float64Array(Math.max(...at) - low + 1)
  at.forEach((cell, i) => (chances[cell - low]! += chance[i]!))
  return { low, chances }
}

/**
 * The total of n questions drawn uniformly out of N, averaged over all sets of n: by selection in sequence, in which the
 * next question is taken with chance (still wanted) / (still to come); dynamic over the number taken and the total.
 */
function ofDraw({ from, n }: Draw, of: Lattice['of']): Cells {
  const items = from.map(of)
  const low = Math.min(...items.flatMap((item) => item.at))
  const span = Math.max(...items.flatMap((item) => item.at)) - low
  const taken = Array.from({ length: n + 1 }, (_, k) => new Float64Array(k * span + 1))
  taken[0]![0] = 1
  items.forEach((item, i) => {
    const left = items.length - i
    for (let k = Math.min(i, n); k >= 0; k--) {
      const wanted = n - k
      const now = taken[k]!
      if (wanted > 0) {
        const next = taken[k + 1]!
        item.at.forEach((cell, outcome) => {
          const weight = (item.chance[outcome]! * wanted) / left
          const shift = cell - low
          for (let at = 0; at < now.length; at++) next[at + shift]! += now[at]! * weight
        })
      }
      const stays = 1 - wanted / left
      for (let at = 0; at < now.length; at++) now[at]! *= stays
    }
  })
  return { low: n * low, chances: taken[n]! }
}

/** Several distributions, each with its weight, as one. */
function mixture(parts: { chance: number; cells: Cells }[]): Cells {
  if (!parts.length) return nothing
  const low = Math.min(...parts.map(({ cells }) => cells.low))
  const high = Math.max(...parts.map(({ cells }) => cells.low + cells.chances.length))
  const chances = new Float64Array(high - low)
  for (const { chance, cells } of parts)
    for (let i = 0; i < cells.chances.length; i++) chances[cells.low - low + i]! += chance * cells.chances[i]!
  return { low, chances }
}

const ofPool = ({ ways }: Pool, of: Lattice['of']): Cells =>
  mixture(
    ways.map(({ chance, draws }) => ({ chance, cells: draws.map((draw) => ofDraw(draw, of)).reduce(sumOf, nothing) })),
  )

/** The total of a paper's points (before it is floored at 0), over the outcomes of its questions and over what pools draw. */
export function totalsOf(papers: Papers, outcomes: Outcomes): Totals {
  const { fixed, pools } = papers
  const size = fixed.length + pools.reduce((all, pool) => all + pool.n, 0)
  const lattice = latticeFor([...fixed, ...pools.flatMap((pool) => pool.from)], size, outcomes)
  const parts = [...fixed.map((worth) => one(lattice.of(worth))), ...pools.map((pool) => ofPool(pool, lattice.of))]
  return { ...parts.reduce(sumOf, nothing), cells: lattice.cells, error: lattice.error }
}

/** As `totalsOf`, over papers that were drawn: each as likely as any other. @param drawn what pools gave, paper by paper */
export function totalsOver(fixed: readonly Worth[], drawn: readonly Worth[][], outcomes: Outcomes): Totals {
  const size = fixed.length + Math.max(0, ...drawn.map((paper) => paper.length))
  const lattice = latticeFor([...fixed, ...drawn.flat()], size, outcomes)
  const sure = fixed.map((worth) => one(lattice.of(worth))).reduce(sumOf, nothing)
  const given = mixture(
    drawn.map((paper) => ({
      chance: 1 / drawn.length,
      cells: paper.map((worth) => one(lattice.of(worth))).reduce(sumOf, nothing),
    })),
  )
  return { ...sumOf(sure, given), cells: lattice.cells, error: lattice.error }
}

export interface Score {
  points: number
  exactly: Exact
  chance: number
}

/** What may be added up of a distribution: each total in points that has a chance, floored at 0 as scores are. */
export function scores({ low, chances, cells }: Totals): Score[] {
  const found: Score[] = []
  let below = 0
  chances.forEach((chance, i) => {
    if (low + i <= 0) below += chance
    else if (chance > 0) found.push({ points: (low + i) / cells, exactly: `${low + i}/${cells}`, chance })
  })
  return below > 0 ? [{ points: 0, exactly: '0', chance: below }, ...found] : found
}
