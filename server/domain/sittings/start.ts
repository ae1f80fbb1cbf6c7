import type { AttemptRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { compilePaper, languagesOn, wholePaper } from '../../../core/paper'
import { noPlaceFor, passwordIn } from '../../../core/rules'
import { limitsFor, maySit, scheduleFor, type MaySit, type Schedule } from '../../../core/schedule'
import type { Student } from '../../../core/quiz'
import { toJson, toSql, toSqlOrNever } from '../../database/codec'
import { onStage } from '../../database/stage'
import type { Database, Db } from '../../database/database'
import { readPaper } from '../../documents/read'
import { newId } from '../ids'
import type { Person } from '../../people/people'
import { samePassword } from '../../people/password'
import { countedTry, mostAtOne, mostFromAddress } from '../../people/tries'
import { notFound, Problem } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { currentState, loadQuiz, quizEndsNow, type LoadedQuiz } from '../quizzes/quizzes'
import { studentAt } from '../classes/students'
import { rosterOf } from '../quizzes/ends-now'
import { DecisionOutdated, ensureUnchanged, holdChanges, startBasis, type StartBasis } from '../quizzes/start-guard'
import { missedSince } from '../marks/totals'
import { isFull, placesTaken } from './places'
import { recordLine } from '../record'
import { loadAttempts, type Attempt } from './attempts'
import { satOf } from './sat'
import { settle } from './end'
import { notEntered, shutItems } from './section-clocks'

export interface Standing {
  row: LoadedQuiz
  student: Student
  schedule: Schedule
  attempts: Attempt[]
  may: MaySit
  /** What this was decided on. */
  basis: StartBasis
  /** The instant for which it was decided. */
  at: Instant
}

/** Where a student stands with a quiz: schedule, attempts, and whether they may start. */
export async function standing(database: Database, person: Person, quizId: string, asked: Instant): Promise<Standing> {
  await settle(database, { student: person.id }, asked)
  const row = await loadQuiz(database, quizId)
  // A request that was under way while the quiz was changed comes after the change. A rehearsal asks how it would be earlier.
  const now = onStage() || asked > row.changedAt ? asked : row.changedAt
  const roster = await rosterOf(database, row.school)
  const student = await studentAt(database, person.id, roster)
  if (!student) throw notFound('This quiz')
  const attempts = await loadAttempts(database, { quizzes: [quizId], student: person.id })
  const schedule = scheduleFor(row.quiz.rules, student)
  // A draft, one that was withdrawn, one for other classes: nothing tells them from what is not there.
  const isTheirs =
    row.edition !== null && row.stored !== 'draft' && row.stored !== 'withdrawn' && schedule.windows.length
  if (!isTheirs && !attempts.length) throw notFound('This quiz')
  const state = currentState(row, await quizEndsNow(database, row), now)
  return {
    row,
    student,
    schedule,
    attempts,
    basis: startBasis(row, roster),
    at: now,
    may: maySit(
      state,
      schedule,
      { ...satOf(attempts, row.quiz.rules).sat, full: await isFull(database, row, attempts.length) },
      now,
      person.zone,
    ),
  }
}

/** @throws Problem 403 where a password is asked for and not given, or is another; 429 after too many tries */
async function checkPassword(
  database: Database,
  who: { person: string; address: string },
  quizId: string,
  wanted: string | null,
  given: string | undefined,
  now: Instant,
): Promise<void> {
  if (wanted === null) return
  if (given === undefined) throw new Problem(403, 'quiz-password', 'This quiz asks for a password.')
  const counted = [
    { by: `quiz:${quizId}:${who.person}`, most: mostAtOne },
    { by: `quiz:${quizId}:from:${who.address}`, most: mostFromAddress },
  ]
  if (!(await countedTry(database, counted, now, () => samePassword(given, wanted))))
    throw new Problem(
      403,
      'quiz-password',
      'That is not the password of this quiz. Ask your teacher, and mind capital letters.',
    )
}

/** How a sitting is begun: the browser that will send answers, what it knows, and where from. */
export interface Beginning {
  device: string
  password?: string
  address?: string
}

/**
 * All who begin a quiz that only so many may sit write one row, before they read anything: they come one after another on
 * every node, and what is counted then is what has begun.
 */
const takeTurn = (db: Db, quiz: string) =>
  db.run('INSERT INTO quiz_turn (quiz_id, turn) VALUES (?, 1) ON DUPLICATE KEY UPDATE turn = turn + 1', [quiz])

/** @throws Problem 409 where all places are taken */
async function ensurePlace(db: Db, quiz: string, places: number): Promise<void> {
  if (noPlaceFor(places, (await placesTaken(db, [quiz])).get(quiz)!, false))
    throw new Problem(409, 'may-not-sit', 'All places of this quiz are taken.', { from: null })
}

/** How often a start is decided on again while what it is decided on keeps changing. */
const mostDecisions = 20

/**
 * Starts an attempt: compiles the paper, stores it with its answer rows, and gives the device the lease. Whatever a
 * teacher changes at the same moment holds for it: then it is decided again.
 * @throws Problem 409 with the reason where the student may not start; 403, 429 of the password; 503 where the quiz
 *   never stops changing
 * @param decisions how often it may be decided on
 */
export async function startSitting(
  database: Database,
  person: Person,
  quizId: string,
  beginning: Beginning,
  now: Instant,
  decisions = mostDecisions,
): Promise<{ attempt: string }> {
  try {
    return await startOnce(database, person, quizId, beginning, now)
  } catch (error) {
    if (!(error instanceof DecisionOutdated)) throw error
    if (decisions <= 1)
      throw new Problem(503, 'changing', 'This quiz is being changed at this moment. Try again in a few seconds.')
    return startSitting(database, person, quizId, beginning, now, decisions - 1)
  }
}

async function startOnce(
  database: Database,
  person: Person,
  quizId: string,
  { device, password, address = '' }: Beginning,
  asked: Instant,
): Promise<{ attempt: string }> {
  const { row, student, schedule, attempts, may, basis, at: now } = await standing(database, person, quizId, asked)
  if (!may.may) {
    const running = attempts.find((attempt) => attempt.number === may.sitting)
    if (running) return { attempt: running.id }
    throw new Problem(409, 'may-not-sit', may.sentence, { from: may.from })
  }
  const wanted = passwordIn(row.quiz.rules, may.window)
  await checkPassword(database, { person: person.id, address }, quizId, wanted, password, now)
  const id = newId()
  const limits = limitsFor(schedule, { startedAt: now, window: may.window })
  const { draw } = row.quiz.rules.attempts
  const last = attempts.at(-1)
  const earlier = attempts.length
    ? (
        await database.rows<Pick<AttemptRow, 'paper'>>(
          'SELECT paper FROM attempt WHERE quiz_id = ? AND student_id = ? ORDER BY number',
          [quizId, person.id],
        )
      ).map(({ paper }) => readPaper(paper))
    : []
  const whole = draw === 'missed' ? wholePaper(earlier) : undefined
  // The same paper again, or what was missed of it, is a paper of the edition that it was compiled from.
  const edition = await loadEdition(database, whole?.edition ?? (draw === 'same' && last ? last.edition : row.edition!))
  const missed = whole && last ? await missedSince(database, last, whole.attempt) : undefined
  const paper = compilePaper(edition, student.id, may.attempt, earlier, { draw, ...(missed ? { missed } : {}) })
  const shut = shutItems(paper, edition)
  const places = attempts.length ? null : row.quiz.rules.places
  const language = languagesOn(paper, edition).find((each) => each === schedule.language) ?? null
  try {
    await database.transaction(async (db) => {
      await holdChanges(db, basis, student.id)
      if (places !== null) await takeTurn(db, quizId)
      // Nothing is read before this.
      await ensureUnchanged(db, basis)
      // An earlier paper may be taken up again until a further one is begun: only one of the two happens.
      const stays = last
        ? await db.run("UPDATE attempt SET touched = touched + 1 WHERE id = ? AND state <> 'open'", [last.id])
        : 1
      if (!stays) throw new Problem(409, 'may-not-sit', 'You have taken your last paper up again. Go on with that one.')
      if (places !== null) await ensurePlace(db, quizId, places)
      await db.run(
        `INSERT INTO attempt (id, quiz_id, edition_id, student_id, number, window_id, state, started_at, deadline, on_time_until, hard_stop, lease, device, paper, language, begun_on)
        VALUES (?, ?, ?, ?, ?, ?, 'open', ?, ?, ?, ?, 1, ?, ?, ?, ?)`,
        [
          id,
          quizId,
          edition.id,
          student.id,
          may.attempt,
          may.window,
          toSql(now),
          toSqlOrNever(limits.deadline),
          toSqlOrNever(limits.onTimeUntil),
          toSqlOrNever(limits.hardStop),
          device,
          toJson(paper),
          language,
          basis.revision,
        ],
      )
      await db.run('INSERT INTO answer (attempt_id, item, page, stops_at) VALUES ?', [
        paper.items.map((item) => [id, item.id, item.page, shut.has(item.id) ? toSql(notEntered) : toSqlOrNever(null)]),
      ])
      await recordLine(db, now, person.id, 'sitting started', id, { quiz: quizId, attempt: may.attempt })
    })
  } catch (error) {
    // Two devices at once: the unique key lets one start, and both get that sitting.
    if ((error as { errno?: number }).errno !== 1062) throw error
    const [other] = await loadAttempts(database, { quizzes: [quizId], student: person.id, number: may.attempt })
    return { attempt: other!.id }
  }
  return { attempt: id }
}
