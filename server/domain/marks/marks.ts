import type { AnswerAsideRow, ClassRow, PersonRow } from '../../database/tables'
import { pointsText } from '../../../core/kit/exact'
import type { Instant } from '../../../core/kit/time'
import { namelessTitle, scorePercent, sealNameless } from '../../../core/marking'
import { passWords, type QuizState, type Rules } from '../../../core/quiz'
import { isShutOut } from '../../../core/rules'
import { releasedByHand } from '../../../core/release'
import { fromSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { readResponse } from '../../documents/read'
import { grouped } from '../grouped'
import { notFound, Problem } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { currentState, loadQuiz, quizEndsNow } from '../quizzes/quizzes'
import { assignedTo } from '../classes/assigned'
import { loadEntries } from '../links/come-in'
import { loadReleases } from '../quizzes/releases'
import { answerWords, everything, reviewedSections, type ReviewedSection } from '../reviews/paper-view'
import { loadMarks } from '../reviews/review'
import { loadAnswers, loadAttempt, loadAttempts, loadPaper, type Attempt } from '../sittings/attempts'
import { loadAway, type Away } from '../sittings/away'
import { breaksOf, endOf, type Break } from '../sittings/break-facts'
import { settle } from '../sittings/end'
import { doneWith, loadNotices } from '../sittings/notices'
import { satOf, textOf } from '../sittings/sat'
import { audienceOf, releaseClasses } from '../../../core/schedule'

/** How an attempt was sat: all that could lead to whose it is. */
export interface Circumstances {
  number: number
  startedAt: Instant
  handedInAt: Instant | null
  endedBy: Attempt['endedBy']
  daysLate: number
  minutesOver: number
  counts: boolean
  /** They were away too long from a paper that is sat in one go, and wait to be let in. */
  shutOut: boolean
}

export interface MarkedAttempt {
  id: string
  state: 'open' | 'handed' | 'unsent'
  score: string | null
  possible: string | null
  percent: string | null
  /** Null where papers are seen without names. */
  how: Circumstances | null
}

export interface MarkedStudent {
  id: string
  name: string
  /** What they wrote of themselves who came by the link. */
  entries: { name: string; value: string }[]
  classes: string[]
  attempts: MarkedAttempt[]
  /** The counting grade, exactly. */
  share: string | null
  percent: string | null
  /** As the quiz's scale tells it. */
  text: string | null
  points: string | null
  passed: boolean | null
  undecided: boolean
  /** By the rule of what counts as done. */
  done: boolean
}

export interface MarksTable {
  title: string
  state: QuizState
  /** A survey: nothing is marked. */
  survey: boolean
  /** Papers are seen without names. */
  anonymous: boolean
  method: string
  passMark: string | null
  decimals: number
  classes: { id: string; name: string; releasedAt: Instant | null }[]
  byHand: boolean
  /** Papers under way; where papers are seen without names, none of those is among the students. */
  sitting: number
  /** Of those, papers whose student was away too long and waits to be let back in. */
  shutOut: number
  students: MarkedStudent[]
}

/** What a marked attempt is told with. */
interface Shown {
  rules: Rules
  breaks: ReadonlyMap<string, Break[]>
  now: Instant
}

/** Breaks of sittings under way, where being away shuts somebody out. */
async function breaksThatCount(
  db: Db,
  { oneSitting }: Rules,
  attempts: readonly Attempt[],
): Promise<Map<string, Break[]>> {
  if (oneSitting === null) return new Map()
  return breaksOf(
    db,
    attempts.filter(({ state }) => state === 'open').map(({ id }) => id),
  )
}

function shown(attempt: Attempt, counted: number[], { rules, breaks, now }: Shown): MarkedAttempt {
  return {
    ...scored(attempt, rules),
    how: {
      number: attempt.number,
      startedAt: attempt.startedAt,
      handedInAt: attempt.handedInAt,
      endedBy: attempt.endedBy,
      daysLate: attempt.daysLate,
      minutesOver: attempt.minutesOver,
      counts: counted.includes(attempt.number),
      shutOut: isOut(attempt, { rules, breaks, now }),
    },
  }
}

const isOut = (attempt: Attempt, { rules, breaks, now }: Shown): boolean =>
  attempt.state === 'open' &&
  isShutOut(rules.oneSitting, attempt.seenAt, (breaks.get(attempt.id) ?? []).map(endOf), now)

const scored = (attempt: Attempt, rules: Rules) => ({
  id: attempt.id,
  state: attempt.state,
  score: attempt.score && attempt.possible !== '0' ? pointsText(attempt.score) : null,
  possible: attempt.possible && pointsText(attempt.possible),
  percent: scorePercent(attempt, rules.grade.decimals),
})

/** A paper without its student: by core's one list of what may be told; null while it is under way. */
function nameless(attempt: Attempt, rules: Rules): MarkedAttempt | null {
  const sealed = sealNameless(scored(attempt, rules))
  return sealed && { ...sealed, how: null }
}

/** Each student assigned, or who has sat: attempts, times, late or not, score, counting grade, passed. */
export async function marksTable(database: Database, quizId: string, now: Instant): Promise<MarksTable> {
  await settle(database, { quiz: quizId }, now, 500)
  const row = await loadQuiz(database, quizId)
  const { rules, content } = row.quiz
  const [students, attempts, released, notices, written] = await Promise.all([
    assignedTo(database, rules),
    loadAttempts(database, { quizzes: [quizId] }),
    loadReleases(database, [quizId]),
    loadNotices(database, { quiz: quizId }, [rules]),
    rules.link ? loadEntries(database, rules.link.audience) : new Map<string, Record<string, string>>(),
  ])
  const facts = { rules, breaks: await breaksThatCount(database, rules, attempts), now }
  const concerned = new Set([
    ...audienceOf(rules).classes,
    ...students.flatMap((student) => releaseClasses(rules, student.classes)),
  ])
  const classes = await database.rows<Pick<ClassRow, 'id' | 'name'>>(
    'SELECT id, name FROM class WHERE id IN (?) AND school_id = ? ORDER BY name',
    [['-', ...concerned], row.school],
  )
  const known = new Set(students.map((student) => student.id))
  const left = [...new Set(attempts.map((attempt) => attempt.student))].filter((id) => !known.has(id))
  const others = left.length
    ? await database.rows<Pick<PersonRow, 'id' | 'name'>>('SELECT id, name FROM person WHERE id IN (?) ORDER BY name', [
        left,
      ])
    : []
  const nameOf = new Map(classes.map(({ id, name }) => [id, name]))
  const byStudent = grouped(attempts, (attempt) => attempt.student)
  const line = (id: string, name: string, inClasses: string[]): MarkedStudent => {
    const own = byStudent.get(id) ?? []
    const { grade } = satOf(own, rules)
    return {
      id,
      name,
      entries: (rules.link?.fields ?? []).flatMap((field) => {
        const value = written.get(id)?.[field.id]
        return value ? [{ name: field.name, value }] : []
      }),
      classes: inClasses.flatMap((each) => nameOf.get(each) ?? []),
      attempts: own.map((attempt) => shown(attempt, grade.counted, facts)),
      share: grade.share,
      percent: grade.percent,
      text: textOf(grade, rules),
      points: grade.points,
      passed: grade.passed,
      undecided: grade.undecided,
      done: doneWith(rules, notices.get(id), own, grade.passed),
    }
  }
  /** A paper without a name is a line of its own, whoever else's it is. */
  const paper = (attempt: MarkedAttempt): MarkedStudent => ({
    id: attempt.id,
    name: namelessTitle(attempt.id),
    entries: [],
    classes: [],
    attempts: [attempt],
    share: null,
    percent: null,
    text: null,
    points: null,
    passed: null,
    undecided: false,
    done: false,
  })
  const { pass } = rules.grade
  return {
    title: content.title,
    state: currentState(row, await quizEndsNow(database, row), now),
    survey: rules.counts === 'survey',
    anonymous: rules.anonymous,
    method: rules.grade.method,
    passMark: pass && passWords(pass),
    decimals: rules.grade.decimals,
    classes: classes.map(({ id, name }) => ({
      id,
      name,
      releasedAt: released.get(quizId)?.get(id) ?? null,
    })),
    byHand: releasedByHand(rules),
    sitting: attempts.filter(({ state }) => state === 'open').length,
    shutOut: attempts.filter((attempt) => isOut(attempt, facts)).length,
    students: rules.anonymous
      ? attempts
          .flatMap((attempt) => nameless(attempt, rules) ?? [])
          .map(paper)
          .sort((a, b) => (a.name + a.id < b.name + b.id ? -1 : 1))
      : [
          ...students.map((student) => line(student.id, student.name, student.classes)),
          ...others.map((other) => line(other.id, other.name, [])),
        ],
  }
}

export interface MarkedPaper {
  quiz: string
  title: string
  student: string
  attempt: MarkedAttempt
  /** Its number; null without a name: later papers are of later editions. */
  edition: number | null
  sections: ReviewedSection[]
  aside: { number: number | null; text: string; arrivedAt: Instant | null; reason: string }[]
  /** Times away from the page, where that was noted: facts. */
  away: Away[]
}

/** One paper with every answer beside its key, and what arrived too late to count. */
export async function markedPaper(
  database: Database,
  quizId: string,
  attemptId: string,
  now: Instant,
): Promise<MarkedPaper> {
  await settle(database, { attempt: attemptId }, now)
  const attempt = await loadAttempt(database, attemptId)
  if (attempt.quiz !== quizId) throw notFound('This paper')
  const [{ quiz }, person, paper, edition, answers, marks, aside] = await Promise.all([
    loadQuiz(database, quizId),
    database.one<Pick<PersonRow, 'name'>>('SELECT name FROM person WHERE id = ?', [attempt.student]),
    loadPaper(database, attemptId),
    loadEdition(database, attempt.edition),
    loadAnswers(database, attemptId),
    loadMarks(database, attemptId),
    database.rows<Pick<AnswerAsideRow, 'item' | 'response' | 'arrived_at' | 'reason'>>(
      'SELECT item, response, arrived_at, reason FROM answer_aside WHERE attempt_id = ? ORDER BY arrived_at, item, seq',
      [attemptId],
    ),
  ])
  const { rules } = quiz
  const told = rules.anonymous
    ? nameless(attempt, rules)
    : shown(attempt, [], { rules, breaks: await breaksThatCount(database, rules, [attempt]), now })
  if (!told)
    throw new Problem(
      409,
      'under-way',
      'This paper is still being written. Papers without names can be read when they are handed in.',
    )
  const sections = reviewedSections(paper, edition, answers, marks, everything)
  const numbers = new Map(
    sections.flatMap((section) => section.questions.map((question) => [question.item, question.number])),
  )
  return {
    quiz: quizId,
    title: quiz.content.title,
    student: rules.anonymous ? namelessTitle(attemptId) : (person?.name ?? 'Unknown'),
    attempt: told,
    edition: rules.anonymous ? null : edition.number,
    sections,
    // When somebody was away tells who they are to whoever was in the room.
    away: rules.anonymous ? [] : await loadAway(database, attemptId),
    aside: aside.map((each) => ({
      number: numbers.get(each.item) ?? null,
      text: answerWords(paper, edition, each.item, readResponse(each.response)),
      arrivedAt: rules.anonymous ? null : fromSql(each.arrived_at),
      // On what device, and how late: that leads to whose it is.
      reason: rules.anonymous ? '' : each.reason,
    })),
  }
}
