import { opaqueIds, seededRandom, shuffledAround, type Random } from '../kit/random'
import { kindOf } from '../question/kinds'
import { drawValues, NoValues } from '../question/vary/sample'
import { instanceOf } from '../question/vary/instance'
import type { Values } from '../question/vary/schema'
import type { Question } from '../question/schema'
import type { Movable } from '../question/kinds/kind'
import type { Content, Edition, OptionOrder, Pages, Row, Section } from '../quiz/schema'
import { drawRows, fixedQuestions, gives, questionsOf } from '../quiz/walk'
import { drawPools, type Demand, type Rank } from './draw'
import { pageNumbers } from './pages'
import { positionsOf } from './positions'
import { stratumFor } from './spread'
import type { Paper, PaperItem } from './schema'

/** How a section is parted; one with a clock of its own, or that is closed when it is left, never shares a page with others. */
function pagesOf(section: Section, content: Content): Pages {
  const pages = section.pages ?? content.pages
  const isApart = section.limit !== null || content.movement === 'section'
  return isApart && pages.by === 'all' ? { by: 'section' } : pages
}

/** A question placed in a section, before it has its options and ids. */
interface Placed {
  question: string
  row: string
  points: number
  order: OptionOrder
}

/** What every paper of an edition needs, worked out once: editions never change. */
interface Plan {
  demands: Demand[]
  claimed: Set<string>
  questions: Map<string, PlannedQuestion>
}

interface PlannedQuestion {
  version: number
  question: Question
  /** What may change places, a list at a time. */
  lists: MovableList[]
}

interface MovableList {
  movable: Movable[]
  /** Some of them may change places. */
  loose: boolean
  /** They do so whatever quiz and row say. */
  always: boolean
}

const plans = new WeakMap<Edition, Plan>()

/** Members of one list change places among themselves only. */
function lists(movable: readonly Movable[]): Movable[][] {
  const byName = new Map<string, Movable[]>()
  for (const each of movable) byName.set(each.list ?? '', [...(byName.get(each.list ?? '') ?? []), each])
  return [...byName.values()]
}

function planOf(edition: Edition): Plan {
  const known = plans.get(edition)
  if (known) return known
  const plan: Plan = {
    demands: drawRows(edition.content).map((row) => {
      const stratum = stratumFor(row, (question) => edition.questions[question]?.question)
      return { id: row.id, holds: row.questions, draw: row.draw, ...(stratum ? { stratum } : {}) }
    }),
    claimed: new Set(fixedQuestions(edition.content)),
    questions: new Map(
      Object.entries(edition.questions).map(([id, { question, version }]) => [
        id,
        {
          version,
          question,
          lists: lists(kindOf(question.kind).options(question.body)).map((movable) => ({
            movable,
            loose: movable.some((option) => !option.fixed),
            always: movable.some((option) => !option.fixed && option.always),
          })),
        },
      ]),
    ),
  }
  plans.set(edition, plan)
  return plan
}

/** Later attempts prefer what was not seen, then what was seen longest ago (semantics §4.4). */
function rankBySight(earlier: readonly Paper[]): Rank | null {
  if (!earlier.length) return null
  const lastSeen = new Map<string, number>()
  for (const paper of [...earlier].sort((a, b) => a.attempt - b.attempt)) {
    for (const item of paper.items) lastSeen.set(item.question, paper.attempt)
  }
  return (question) => lastSeen.get(question) ?? 0
}

/**
 * In a shuffled section the questions permute one by one, those of a pool among the others; a stimulus group moves as
 * one, and fixed rows keep their places. (Rows kept together would show where a pool begins and ends.)
 */
function place(section: Section, drawn: Map<string, string[]>, random: Random): Placed[] {
  const units = section.rows.flatMap((row): { fixed: boolean; items: Placed[] }[] => {
    if (!gives(row)) return []
    const items = given(row, drawn, random).map((question) => ({
      question,
      row: row.id,
      points: row.points,
      order: row.options,
    }))
    return row.type === 'stimulus'
      ? [{ fixed: row.fixed, items }]
      : items.map((item) => ({ fixed: row.fixed, items: [item] }))
  })
  return (section.order === 'kept' ? units : shuffledAround(units, (each) => each.fixed, random)).flatMap(
    (unit) => unit.items,
  )
}

/** The questions that a row gives to this paper, in their order: those of a stimulus as its author ordered them, unless that is shuffled. */
function given(row: Row, drawn: Map<string, string[]>, random: Random): string[] {
  const questions = drawn.get(row.id) ?? questionsOf(row)
  if (row.type !== 'stimulus') return questions
  return row.order === 'shuffled'
    ? shuffledAround(questions, () => false, random)
    : row.questions.filter((question) => questions.includes(question))
}

/** Optional parts of compiling: a further attempt may repeat the last paper. */
export interface CompileOptions {
  draw: 'fresh' | 'same' | 'missed'
  /** Questions that were not fully right in any earlier attempt: what `missed` holds. */
  missed?: ReadonlySet<string>
}

/** The paper of which further ones hold what was missed: the last that holds more than that. */
export const wholePaper = (earlier: readonly Paper[]): Paper | undefined =>
  earlier.findLast((paper) => paper.missedSince === undefined)

/** Of a paper, only what was missed: as it stood there, on as many pages as that takes. */
function onlyMissed(whole: Paper, missed: ReadonlySet<string>, attempt: number): Paper {
  const left = whole.items.filter((item) => missed.has(item.question))
  const pages = [...new Set(left.map((item) => item.page))].sort((a, b) => a - b)
  const items = left.map((item) => ({ ...item, page: pages.indexOf(item.page) }))
  return { ...whole, attempt, items, pages: pages.length, missedSince: whole.attempt }
}

/**
 * Compiles the paper that a student gets in one attempt (semantics §4). The same arguments always give the same paper.
 * @param earlier papers that the student has started in this quiz, of any edition
 * @throws CannotDraw when pools cannot be satisfied (checks find that before opening)
 */
export function compilePaper(
  edition: Edition,
  student: string,
  attempt: number,
  earlier: readonly Paper[],
  options: CompileOptions = { draw: 'fresh' },
): Paper {
  const last = earlier.at(-1)
  if (options.draw === 'same' && last && last.edition === edition.id) return { ...last, attempt }
  const whole = wholePaper(earlier)
  if (options.draw === 'missed' && whole && whole.edition === edition.id)
    return onlyMissed(whole, options.missed ?? new Set(), attempt)
  const random = seededRandom(edition.secret, [student, String(attempt)])
  const { content } = edition
  const plan = planOf(edition)
  const drawn = drawPools(plan.demands, plan.claimed, rankBySight(earlier), random)
  const nextId = opaqueIds(random)
  const placed = content.sections.map((section) => ({ section, items: place(section, drawn, random) }))
  const numbering = pageNumbers(
    placed.map(({ section, items }) => {
      const places = positionsOf(section.rows, items)
      return {
        size: items.length,
        pages: pagesOf(section, content),
        breaks: section.rows.flatMap((row) => (row.type === 'break' ? places.get(row.id)! : [])),
      }
    }),
  )
  const items = placed.flatMap(({ section, items }, sectionIndex) =>
    items.map((item, index) =>
      compileItem(
        plan.questions.get(item.question)!,
        section.id,
        item,
        numbering.page(sectionIndex, index),
        nextId,
        random,
        content.shuffleOptions,
      ),
    ),
  )
  return { edition: edition.id, student, attempt, items, pages: numbering.count }
}

/** Values of a varying question of which it can be made; checks before opening have found that there are some. */
function valuesFor(question: Question, random: Random): Values | null {
  if (!question.vary) return null
  const values = drawValues(question.vary, random, (each) => Boolean(instanceOf(question, each)))
  if (!values) throw new NoValues('No values of a varying question meet its conditions.')
  return values
}

const isFixed = (option: Movable) => option.fixed

/** The options of a question as they stand on this paper. */
function ordered(lists: readonly MovableList[], shuffles: boolean, random: Random): Movable[] {
  const parts = lists.map(({ movable, loose, always }) =>
    always || (loose && shuffles) ? shuffledAround(movable, isFixed, random) : movable,
  )
  return parts.length === 1 ? parts[0]! : parts.flat()
}

function compileItem(
  planned: PlannedQuestion,
  section: string,
  item: Placed,
  page: number,
  nextId: () => string,
  random: Random,
  quizShuffles: boolean,
): PaperItem {
  const shuffles = item.order === 'quiz' ? quizShuffles : item.order === 'shuffled'
  const options = ordered(planned.lists, shuffles, random)
  const values = valuesFor(planned.question, random)
  const compiled = {
    id: nextId(),
    question: item.question,
    version: planned.version,
    section,
    row: item.row,
    points: item.points,
    page,
    options: options.map((option) => ({ id: nextId(), option: option.id })),
  }
  return values ? { ...compiled, values } : compiled
}
