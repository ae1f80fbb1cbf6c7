import type { Content } from '../quiz/schema'
import { allRows, fixedQuestions, pointsOf, rowSize } from '../quiz/walk'
import { coverageOf, type Coverage } from './coverage'
import { factsOf, type Facts } from './facts'
import { forecast, type Abilities, type Forecast } from './forecast'
import { guessing, type Guessing, type GuessingRules } from './guessing'
import { paperSpread, spreadOver, usuallyExpected, type PaperSpread } from './moments'
import { drawnPapers, papersOf, unspread, type Papers, type Worth } from './papers'
import { numberOfPapers, sharedQuestions } from './sharing'

/** What every paper of a quiz has: needs nothing but the running order. */
export interface Sizes {
  questions: number
  points: number
}

export interface Figures extends Sizes {
  /** Sum of the expected (median) times, in seconds; the mean over a pool for what it draws. */
  seconds: number
  /** Questions that two papers share on average: Σ πᵢ² (semantics §8). */
  shared: number
  /** Pools overlap, so that figures come from papers that were drawn, or are loose bounds. */
  about: boolean
  /** Different sets of questions: a power of ten, or null where pools overlap. */
  papers: string | null
  /** Questions on every paper that have an objective. */
  coverage: Coverage[]
  guessing: Guessing
  /** Null without points. `plain` is what it would be were no pool spread; null where none is. */
  spread: (PaperSpread & { plain: PaperSpread | null }) | null
  forecast: Forecast | null
}

/** Papers drawn where pools overlap and no closed form holds. */
const sampled = { share: 400, totals: 60 }

export function sizesOf(content: Content): Sizes {
  const rows = allRows(content)
  return { questions: rows.reduce((total, row) => total + rowSize(row), 0), points: pointsOf(rows) }
}

function expectedSeconds(content: Content, { pools }: Papers, facts: Facts): number {
  const secondsOf = (question: string) => factsOf(facts, question).seconds
  const mean = (from: Worth[]) =>
    from.length ? from.reduce((total, { question }) => total + secondsOf(question), 0) / from.length : 0
  return Math.round(
    fixedQuestions(content).reduce((total, question) => total + secondsOf(question), 0) +
      pools.reduce((total, { n, from }) => total + n * mean(from), 0),
  )
}

function spreadFigures(
  content: Content,
  papers: Papers,
  drawn: readonly Worth[][] | null,
  facts: Facts,
): Figures['spread'] {
  const expects = usuallyExpected(facts)
  const found = drawn ? spreadOver(papers.fixed, drawn, expects) : paperSpread(papers, expects)
  const spreads = content.sections.some(({ rows }) => rows.some((row) => row.type === 'pool' && row.spread !== 'none'))
  return found && { ...found, plain: spreads && !papers.overlap ? paperSpread(unspread(papers), expects) : null }
}

/**
 * All figures of a quiz but the simulated working time (semantics §8).
 * @param rules by which it is passed
 * @param abilities of the class, where questions are calibrated
 */
export function figuresFor(
  content: Content,
  rules: GuessingRules,
  facts: Facts,
  abilities: Abilities | null = null,
): Figures {
  const papers = papersOf(content, facts)
  const sample = papers.overlap ? drawnPapers(content, facts, sampled.share) : null
  const few = sample && sample.slice(0, sampled.totals)
  return {
    ...sizesOf(content),
    seconds: expectedSeconds(content, papers, facts),
    shared: sharedQuestions(papers, sample),
    about: papers.overlap,
    papers: numberOfPapers(papers),
    // What is satisfiable goes before what is spread: only then is a stratum's share not sure.
    coverage: coverageOf(papers.overlap ? unspread(papers) : papers, facts),
    guessing: guessing(content, rules, papers, few, facts),
    spread: spreadFigures(content, papers, sample, facts),
    forecast: forecast(content, rules, papers, few, facts, abilities),
  }
}
