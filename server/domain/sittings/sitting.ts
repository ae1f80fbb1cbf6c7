import type { Instant } from '../../../core/kit/time'
import type { AnswerRow } from '../../database/tables'
import { duration } from '../../../core/kit/phrases'
import { lowestPage, sealPaper, type Paper, type Sheet } from '../../../core/paper'
import type { Rules } from '../../../core/quiz'
import { isShutOut } from '../../../core/rules'
import { clockAt, scheduleFor, type Clock } from '../../../core/schedule'
import { toSql, toSqlOrNever } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { studentsByIds } from '../classes/students'
import { Problem } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { loadQuiz } from '../quizzes/quizzes'
import { loadAnswers, loadAttempt, loadPaper, type Attempt } from './attempts'
import { breakAt, breakLeft, breaksOf, endOf, type Break } from './break-facts'
import { helpFor, type Help } from './help'
import { loadNotes, type OwnNote } from './notes'
import { ownAttempt } from './own-attempt'
import { missingIn, requiredProblem } from './required'
import { enteredSections, sectionClocks, sectionDoors, type SectionClock } from './section-clocks'

export interface SittingClock extends Clock {
  now: Instant
  ended: boolean
  atDeadline: 'handIn' | 'finish' | 'unsent'
}

export interface OpenedSitting {
  attempt: string
  quiz: string
  number: number
  startedAt: Instant
  lease: number
  page: number
  sheet: Sheet
  /** Sections with a clock of their own that have been entered, by their place on the sheet. */
  sections: SectionClock[]
  /** Minutes for each section with a clock of its own, by its place on the sheet. */
  doors: { place: number; minutes: number }[]
  answers: { item: string; response: unknown; flagged: boolean; keptAt: Instant | null }[]
  seq: number
  clock: SittingClock
  /** Another device had the lease until now. */
  tookOver: boolean
  /** The student reads papers in larger type. */
  largerType: boolean
  /** Milliseconds of breaks that can still be taken. */
  breakLeft: number
  /** What students are helped with while they work; null for nothing. */
  help: Help | null
  tools: Rules['tools']
  /** They see how far they are. */
  progress: boolean
  /** It is noted when they leave the page. */
  watched: boolean
  /** Items that come back at the end: they were left empty where moving is forward only. */
  putOff: string[]
  /** What is left empty comes back at the end. */
  puts: boolean
  /** Handing in is not final. */
  again: boolean
  notes: Record<string, OwnNote>
}

async function clockOf(database: Database, attempt: Attempt, now: Instant): Promise<SittingClock> {
  const { quiz } = await loadQuiz(database, attempt.quiz)
  const clock = clockAt(attempt.limits, now)
  return {
    ...clock,
    now,
    ended: attempt.state !== 'open' || clock.phase === 'ended',
    atDeadline: quiz.rules.atDeadline,
  }
}

/**
 * Gives a device the lease on a sitting. Of devices that open it at once each takes one of its own, one after another,
 * so that no two ever write under the same. None has one while its student takes a break.
 */
async function takeLease(
  database: Database,
  id: string,
  device: string,
  now: Instant,
  tries = 20,
): Promise<{ lease: number; tookOver: boolean; breaks: Break[] }> {
  const { state, device: holder, lease, quiz } = await loadAttempt(database, id)
  if (state !== 'open') throw new Problem(409, 'ended', 'This paper has been handed in.', { attempt: id })
  // Looked at after the lease was read: a break that begins from now on takes the lease away, and this one loses.
  const breaks = (await breaksOf(database, [id])).get(id) ?? []
  const rest = breakAt(breaks, now)
  // The questions stay covered: a break that shows them would be time to work.
  if (rest) {
    const { quiz: known } = await loadQuiz(database, quiz)
    throw new Problem(409, 'break', 'You are taking a break.', { until: rest.until, now, title: known.content.title })
  }
  if (holder === device) return { lease, tookOver: false, breaks }
  const won = await database.run(
    "UPDATE attempt SET lease = ?, device = ?, touched = touched + 1 WHERE id = ? AND lease = ? AND state = 'open'",
    [lease + 1, device, id, lease],
  )
  if (won) return { lease: lease + 1, tookOver: true, breaks }
  if (tries <= 1) throw new Problem(409, 'lease', 'This paper is being opened on many devices at once. Try again.')
  return takeLease(database, id, device, now, tries - 1)
}

/**
 * Opens a sitting on a device: the whole sheet, the answers kept, the clock. The device gets the lease; another one
 * that had it turns to reading.
 * @param language chosen just now; kept with the sitting, so that another device and the review follow it
 */
export async function openSitting(
  database: Database,
  student: string,
  id: string,
  device: string,
  now: Instant,
  language?: string | null,
): Promise<OpenedSitting> {
  const asked = await ownAttempt(database, student, id, now)
  await ensureNotShutOut(database, asked, now)
  const { lease, tookOver, breaks } = await takeLease(database, id, device, now)
  if (language !== undefined)
    await database.run("UPDATE attempt SET language = ?, touched = touched + 1 WHERE id = ? AND state = 'open'", [
      language,
      id,
    ])
  const current = await loadAttempt(database, id)
  const [paper, edition, answers, entered, known] = await Promise.all([
    loadPaper(database, id),
    loadEdition(database, current.edition),
    loadAnswers(database, id),
    enteredSections(database, id),
    studentsByIds(database, [student]),
  ])
  const { quiz } = await loadQuiz(database, current.quiz)
  const schedule = scheduleFor(quiz.rules, known.get(student)!)
  return {
    attempt: id,
    quiz: current.quiz,
    number: current.number,
    startedAt: current.startedAt,
    lease,
    page: current.page,
    tookOver,
    largerType: schedule.largerType,
    breakLeft: breakLeft(schedule, breaks),
    tools: quiz.rules.tools,
    progress: quiz.rules.progress,
    watched: quiz.rules.watched,
    puts: edition.content.movement === 'forward' && edition.content.putOff,
    again: quiz.rules.attempts.again,
    putOff: await putOffIn(database, id, paper),
    notes: await loadNotes(database, id),
    help: await helpFor(database, current, quiz.rules, paper, edition),
    sheet: sealPaper(paper, edition, current.language, new Set(entered.map(({ section }) => section))),
    sections: sectionClocks(paper, edition, entered),
    doors: await sectionDoors(database, current, paper, edition),
    answers: answers.map(({ item, response, flagged, keptAt }) => ({ item, response, flagged, keptAt })),
    seq: Math.max(0, ...answers.filter((answer) => answer.lease === lease).map((answer) => answer.seq)),
    clock: await clockOf(database, current, now),
  }
}

/** Whoever was away too long from a paper that is sat in one go waits for their teacher. */
async function ensureNotShutOut(database: Database, attempt: Attempt, now: Instant): Promise<void> {
  if (attempt.state !== 'open') return
  const { quiz } = await loadQuiz(database, attempt.quiz)
  const rule = quiz.rules.oneSitting
  if (rule === null) return
  const breaks = (await breaksOf(database, [attempt.id])).get(attempt.id) ?? []
  if (isShutOut(rule, attempt.seenAt, breaks.map(endOf), now))
    throw new Problem(
      409,
      'shut-out',
      `You were away for more than ${duration(rule)}. Ask your teacher to let you back in; what you wrote is kept.`,
    )
  await noteSeenAt(database, attempt, now)
}

/** Notes that a sitting is heard of; where it is not sat in one go nothing is kept. */
async function noteSeenAt(db: Db, { id }: Attempt, now: Instant): Promise<void> {
  await db.run(
    "UPDATE attempt SET seen_at = ? WHERE id = ? AND state = 'open' AND COALESCE(seen_at, '1000-01-01') < ?",
    [toSql(now), id, toSql(now)],
  )
}

/** The clock of a sitting, and whether a lease still holds. */
export async function sittingClock(
  database: Database,
  student: string,
  id: string,
  lease: number,
  now: Instant,
): Promise<SittingClock & { leaseHeld: boolean; sections: SectionClock[] }> {
  const attempt = await ownAttempt(database, student, id, now)
  // Also whose page stayed open without a connection was away.
  if (attempt.seenAt !== null && attempt.lease === lease) await ensureNotShutOut(database, attempt, now)
  const entered = await enteredSections(database, id)
  return {
    ...(await clockOf(database, attempt, now)),
    leaseHeld: attempt.lease === lease,
    sections: entered.length
      ? sectionClocks(await loadPaper(database, id), await loadEdition(database, attempt.edition), entered)
      : [],
  }
}

/** Items that were put off: they stand behind the last page of the paper. */
async function putOffIn(db: Db, attempt: string, paper: Paper): Promise<string[]> {
  const rows = await db.rows<Pick<AnswerRow, 'item'>>('SELECT item FROM answer WHERE attempt_id = ? AND page >= ?', [
    attempt,
    paper.pages,
  ])
  const off = new Set(rows.map(({ item }) => item))
  return paper.items.filter(({ id }) => off.has(id)).map(({ id }) => id)
}

/**
 * Goes on to a page where moving is forward only, or to another section: what lies before it is closed for changes, or,
 * where the quiz puts off what is left empty, comes back behind the last page.
 */
export async function moveOn(
  database: Database,
  student: string,
  id: string,
  lease: number,
  page: number,
  now: Instant,
): Promise<{ page: number; putOff: string[] }> {
  const attempt = await ownAttempt(database, student, id, now)
  const [paper, edition] = await Promise.all([loadPaper(database, id), loadEdition(database, attempt.edition)])
  const { movement } = edition.content
  const puts = movement === 'forward' && edition.content.putOff
  if (page >= paper.pages + (puts ? 1 : 0)) throw new Problem(422, 'page', `This paper has ${paper.pages} pages.`)
  const reply = async () => ({
    page: (await loadAttempt(database, id)).page,
    putOff: await putOffIn(database, id, paper),
  })
  if (movement === 'free') return reply()
  const sections = edition.content.sections.map(({ id: section }) =>
    paper.items.filter((item) => item.section === section).map((item) => item.page),
  )
  const first = lowestPage(movement, sections, page)
  const missing = puts ? [] : await missingIn(database, id, now, (item) => item.page < first)
  if (missing.length && attempt.lease === lease) throw requiredProblem(missing, 'before you go on')
  await database.transaction(async (db) => {
    const moved = await db.run(
      "UPDATE attempt SET page = ?, touched = touched + 1 WHERE id = ? AND state = 'open' AND hard_stop >= ? AND lease = ? AND page < ?",
      [first, id, toSql(now), lease, first],
    )
    if (moved && puts)
      // What stands in a section with a clock of its own is closed with it.
      await db.run(
        'UPDATE answer SET page = ? WHERE attempt_id = ? AND page < ? AND response IS NULL AND stops_at = ?',
        [paper.pages, id, Math.min(first, paper.pages), toSqlOrNever(null)],
      )
  })
  return reply()
}
