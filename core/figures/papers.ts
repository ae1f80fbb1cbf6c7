import { seededRandom } from '../kit/random'
import { drawPools, strata } from '../paper/draw'
import { quotaPatterns, stratumFor } from '../paper/spread'
import type { Content } from '../quiz/schema'
import { allRows, drawRows, fixedOf, gives, fixedQuestions } from '../quiz/walk'
import type { Facts } from './facts'

/** A question with the points that its row gives it. */
export interface Worth {
  question: string
  points: number
  section: string
}

/** n of N questions, uniformly among all sets of n. */
export interface Draw {
  from: Worth[]
  n: number
}

/** A pool: with each chance, these draws together. One possibility where nothing is spread. */
export interface Pool {
  row: string
  from: Worth[]
  n: number
  ways: { chance: number; draws: Draw[] }[]
}

/** What papers of a quiz may hold: the heart of all figures. */
export interface Papers {
  fixed: Worth[]
  pools: Pool[]
  /** Pools share questions: no closed form holds, and whole papers are drawn instead. */
  overlap: boolean
}

/** The papers of a quiz. What fixed rows claim is out of every pool; a pool that holds too few gives all that it holds. */
export function papersOf(content: Content, facts: Facts): Papers {
  const claimed = new Set(fixedQuestions(content))
  const sectionOf = sectionsOfRows(content)
  const pools = drawRows(content).map((row): Pool => {
    const holds = [...new Set(row.questions)].filter((question) => !claimed.has(question))
    const n = Math.min(row.draw, holds.length)
    const worth = (questions: string[]) =>
      questions.map((question) => ({ question, points: row.points, section: sectionOf.get(row.id)! }))
    const stratum = stratumFor(row, (question) => facts.get(question))
    const groups = strata({ holds, ...(stratum ? { stratum } : {}) }).map(worth)
    const patterns = quotaPatterns(
      groups.map((group) => group.length),
      n,
    )
    const ways = patterns.map(({ quotas, chance }) => ({
      chance,
      draws: groups.map((from, i) => ({ from, n: quotas[i]! })).filter((draw) => draw.n > 0),
    }))
    return { row: row.id, from: worth(holds), n, ways }
  })
  const held = pools.flatMap((pool) => pool.from.map(({ question }) => question))
  const fixed = allRows(content).flatMap((row) =>
    gives(row)
      ? fixedOf(row).map((question) => ({ question, points: row.points, section: sectionOf.get(row.id)! }))
      : [],
  )
  return { fixed, pools, overlap: new Set(held).size < held.length }
}

/** The section of each row. */
const sectionsOfRows = ({ sections }: Content): Map<string, string> =>
  new Map(sections.flatMap(({ id, rows }) => rows.map((row) => [row.id, id] as const)))

/** The same papers as if no pool were spread. */
export function unspread(papers: Papers): Papers {
  return {
    ...papers,
    pools: papers.pools.map((pool) => ({
      ...pool,
      ways: pool.n ? [{ chance: 1, draws: [{ from: pool.from, n: pool.n }] }] : [],
    })),
  }
}

/**
 * So many papers as students would get them, each as what its pools give; the same each time. Null when the pools
 * cannot be drawn at all.
 */
export function drawnPapers(content: Content, facts: Facts, count: number): Worth[][] | null {
  const rows = drawRows(content)
  const claimed = new Set(fixedQuestions(content))
  const demands = rows.map((row) => {
    const stratum = stratumFor(row, (question) => facts.get(question))
    return { id: row.id, holds: row.questions, draw: row.draw, ...(stratum ? { stratum } : {}) }
  })
  const points = new Map(rows.map((row) => [row.id, row.points]))
  const sectionOf = sectionsOfRows(content)
  try {
    return Array.from({ length: count }, (_, paper) =>
      [...drawPools(demands, claimed, null, seededRandom('00', [String(paper)]))].flatMap(([row, questions]) =>
        questions.map((question) => ({ question, points: points.get(row)!, section: sectionOf.get(row)! })),
      ),
    )
  } catch {
    return null
  }
}
