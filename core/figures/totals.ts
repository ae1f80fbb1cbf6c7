import { Fraction, exact, type Exact } from '../kit/exact'
import type { Chances } from '../kit/chances'
import type { Draw, Papers, Pool, Worth } from './papers'
import { leastCells, type SectionMark } from './section-marks'

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

/** The distribution of a total, and of the part of it in which every section has reached its own pass mark. */
export interface Line extends Totals {
  /** Cell by cell as `chances`. */
  reached: Float64Array
}

/** What lies below a section's pass mark has no chance. */
function above({ low, chances }: Cells, least: number): Cells {
  const kept = chances.slice()
  kept.fill(0, 0, Math.min(kept.length, Math.max(0, least - low)))
  return { low, chances: kept }
}

/** Parts of a paper by section. */
function bySection(parts: readonly { section: string; cells: Cells; possible: number }[]) {
  const sections = new Map<string, { cells: Cells; possible: number }>()
  for (const { section, cells, possible } of parts) {
    const known = sections.get(section)
    sections.set(
      section,
      known ? { cells: sumOf(known.cells, cells), possible: known.possible + possible } : { cells, possible },
    )
  }
  return sections
}

function linked(sections: ReturnType<typeof bySection>, marks: readonly SectionMark[], cells: number) {
  const whole = [...sections.values()].map((each) => each.cells).reduce(sumOf, nothing)
  if (!marks.length) return { whole, passing: whole }
  const markOf = new Map(marks.map((mark) => [mark.section, mark]))
  const passing = [...sections]
    .map(([section, each]) => {
      const mark = markOf.get(section)
      return mark ? above(each.cells, leastCells(mark, each.possible, cells)) : each.cells
    })
    .reduce(sumOf, nothing)
  return { whole, passing }
}

/**
 * The total of a paper's points (before it is floored at 0), over the outcomes of its questions and over what pools draw.
 * @param drawn papers that were drawn, as what pools gave, where pools overlap; each as likely as any other
 * @param marks sections that have to be passed by themselves
 */
export function lineOf(
  papers: Papers,
  drawn: readonly Worth[][] | null,
  outcomes: Outcomes,
  marks: readonly SectionMark[] = [],
): Line {
  const { fixed, pools } = papers
  const sampled = papers.overlap && drawn ? drawn : null
  const size = fixed.length + (sampled ? Math.max(0, ...sampled.map((paper) => paper.length)) : sumOfSizes(pools))
  const given = sampled ? sampled.flat() : pools.flatMap((pool) => pool.from)
  const lattice = latticeFor([...fixed, ...given], size, outcomes)
  const single = (worth: Worth) => ({ section: worth.section, cells: one(lattice.of(worth)), possible: worth.points })
  const sure = fixed.map(single)
  if (!sampled) {
    const parts = pools.map((pool) => ({
      section: pool.from[0]?.section ?? '',
      cells: ofPool(pool, lattice.of),
      possible: pool.n * (pool.from[0]?.points ?? 0),
    }))
    const { whole, passing } = linked(bySection([...sure, ...parts]), marks, lattice.cells)
    return { ...whole, reached: passing.chances, cells: lattice.cells, error: lattice.error }
  }
  const each = sampled.map((paper) => linked(bySection([...sure, ...paper.map(single)]), marks, lattice.cells))
  const mixed = (pick: 'whole' | 'passing') =>
    mixture(each.map((part) => ({ chance: 1 / sampled.length, cells: part[pick] })))
  return { ...mixed('whole'), reached: mixed('passing').chances, cells: lattice.cells, error: lattice.error }
}

const sumOfSizes = (pools: readonly Pool[]) => pools.reduce((all, pool) => all + pool.n, 0)

export interface Score {
  points: number
  exactly: Exact
  chance: number
  /** The part of the chance in which every section has reached its pass mark. */
  reached: number
}

/** What may be added up of a distribution: each total in points that has a chance, floored at 0 as scores are. */
export function scores({ low, chances, reached, cells }: Line): Score[] {
  const found: Score[] = []
  const below = { chance: 0, reached: 0 }
  chances.forEach((chance, i) => {
    if (low + i <= 0) {
      below.chance += chance
      below.reached += reached[i]!
    } else if (chance > 0)
      found.push({ points: (low + i) / cells, exactly: `${low + i}/${cells}`, chance, reached: reached[i]! })
  })
  return below.chance > 0 ? [{ points: 0, exactly: '0', ...below }, ...found] : found
}
