import { Fraction, atLeast, exact, exactText, type Exact } from '../kit/exact'
import type { Paper, PaperItem } from '../paper/schema'
import { instanceOf, scoreAnswer, type ScoredAnswer } from '../question'
import { kindOf } from '../question/kinds'
import type { Question } from '../question/schema'
import type { Edition, WrongCost } from '../quiz/schema'
import type { Counts } from '../rules/counts'
import { totalsOf, type Earned, type Totals } from './totals'
import { wrongAnswerCost } from './wrong-answer'

/** What applies to an edition after it was sat: a question voided, or full credit for all. */
export interface Amendment {
  question: string
  effect: 'void' | 'full'
}

export interface Mark {
  item: string
  question: string
  answered: boolean
  /** Share of the points before any cost; null while a person has to decide. */
  fraction: Exact | null
  /** Points earned, after the cost of a wrong answer; null while a person has to decide. */
  points: Exact | null
  possible: Exact
  parts: ScoredAnswer['parts']
}

export interface Marks extends Totals {
  marks: Mark[]
}

/** Marks given by hand, by item: a share of the points, 0 to 1. */
export type HandMarks = Readonly<Record<string, Exact>>

/** What beside the answers makes the marks. */
export interface MarkedBy {
  /** What people have decided. */
  hand?: HandMarks
  /** Of a survey nothing is marked: every question is worth nothing. */
  counts?: Counts
  /** The share of the points that help has cost, by item. */
  help?: Readonly<Record<string, Exact>>
}

/** The answer as kept: in the paper's opaque ids. */
export type KeptAnswers = Record<string, unknown>

/**
 * What a wrong answer costs, as a share of the points: none, a fixed share, or 1/(k−1) with the question's own k
 * (Frary 1988, NCME ITEMS module on formula scoring). Only for single choice answered with fraction 0, and never
 * beside negative credits.
 */
export function costOf(question: Question, scored: ScoredAnswer, cost: WrongCost): Fraction {
  const wrong = scored.answered && scored.fraction === '0'
  return wrong ? wrongAnswerCost(kindOf(question.kind).guessable(question.body), cost) : new Fraction(0)
}

/** The answer to an item in authored ids, or undefined when it is empty or not of its kind. */
export function authoredAnswer(question: Question, item: PaperItem, answer: unknown): unknown {
  const kind = kindOf(question.kind)
  const read = kind.answer.safeParse(answer)
  return read.success ? kind.open(read.data, item.options) : undefined
}

/** A mark given by hand stands wherever there is one; nobody has to mark what was left empty. */
function byHand(scored: ScoredAnswer, hand: Exact | undefined): ScoredAnswer {
  return hand === undefined ? scored : { ...scored, fraction: hand }
}

/** What is left of a fraction after what help has cost: never less than nothing by that. */
const lessHelp = (fraction: Fraction, cost: Exact | undefined): Fraction =>
  cost === undefined || fraction.compare(0) <= 0 ? fraction : atLeast(0, fraction.sub(exact(cost)))

function markItem(
  edition: Edition,
  item: PaperItem,
  answer: unknown,
  amendment: Amendment | undefined,
  { hand = {}, counts, help = {} }: MarkedBy,
): Mark {
  const byPerson = hand[item.id]
  const question = instanceOf(edition.questions[item.question]!.question, item.values ?? {})
  const scored = byHand(scoreAnswer(question, {}, authoredAnswer(question, item, answer)), byPerson)
  if (question.keyless || counts === 'survey')
    return {
      item: item.id,
      question: item.question,
      answered: scored.answered,
      fraction: null,
      parts: [],
      points: '0',
      possible: '0',
    }
  const possible = amendment?.effect === 'void' ? new Fraction(0) : exact(item.points)
  const earned =
    scored.fraction === null
      ? null
      : // What a person has decided is decided: nothing is taken off it.
        (byPerson === undefined
          ? lessHelp(exact(scored.fraction), help[item.id]).sub(costOf(question, scored, edition.content.wrongCost))
          : exact(scored.fraction)
        ).mul(possible)
  return {
    item: item.id,
    question: item.question,
    answered: scored.answered,
    fraction: scored.fraction,
    parts: scored.parts,
    points: amendment
      ? exactText(amendment.effect === 'full' ? possible : new Fraction(0))
      : earned && exactText(earned),
    possible: exactText(possible),
  }
}

/** Marks with the sections in which their questions stand. */
export function earnedOn(paper: Paper, marks: readonly Pick<Mark, 'item' | 'points' | 'possible'>[]): Earned[] {
  const places = new Map(paper.items.map((item) => [item.id, item]))
  return marks.flatMap(({ item, points, possible }) => {
    const place = places.get(item)
    return place ? [{ question: place.question, section: place.section, points, possible }] : []
  })
}

/** Marks a paper (semantics §1 and §2). Answers that are missing or malformed count as unanswered. @param by what beside the answers makes the marks */
export function markAttempt(
  edition: Edition,
  paper: Paper,
  answers: KeptAnswers,
  amendments: readonly Amendment[] = [],
  by: MarkedBy = {},
): Marks {
  const marks = paper.items.map((item) =>
    markItem(
      edition,
      item,
      answers[item.id],
      amendments.find((each) => each.question === item.question),
      by,
    ),
  )
  return { marks, ...totalsOf(earnedOn(paper, marks)) }
}
