import type { AttemptRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { compilePaper, languagesOn, wholePaper } from '../../../core/paper'
import { noPlaceFor, passwordIn } from '../../../core/rules'
import { limitsFor, maySit, scheduleFor, type MaySit, type Schedule } from '../../../core/schedule'
import type { Student } from '../../../core/quiz'
import { toJson, toSql, toSqlOrNever } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { readPaper } from '../../documents/read'
import { newId } from '../ids'
import type { Person } from '../../people/people'
import { samePassword } from '../../people/password'
import { countedTry, mostAtOne, mostFromAddress } from '../../people/tries'
import { notFound, Problem } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { currentState, loadQuiz, quizEndsNow, type LoadedQuiz } from '../quizzes/quizzes'
import { studentsByIds } from '../classes/students'
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
}

/** Where a student stands with a quiz: schedule, attempts, and whether they may start. */
export async function standing(database: Database, person: Person, quizId: string, now: Instant): Promise<Standing> {
  await settle(database, { student: person.id }, now)
  const row = await loadQuiz(database, quizId)
  const student = (await studentsByIds(database, [person.id])).get(person.id)
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
 * A place of a quiz that only so many may sit. All who begin write one row first, so that they come one after another on
 * every node; what is counted then is what has begun.
 * @throws Problem 409 where all are taken
 */
async function takePlace(db: Db, quiz: string, places: number | null): Promise<void> {
  if (places === null) return
  await db.run('INSERT INTO quiz_turn (quiz_id, turn) VALUES (?, 1) ON DUPLICATE KEY UPDATE turn = turn + 1', [quiz])
  if (noPlaceFor(places, (await placesTaken(db, [quiz])).get(quiz)!, false))
    throw new Problem(409, 'may-not-sit', 'All places of this quiz are taken.', { from: null })
}

/** Starts an attempt: compiles the paper, stores it with its answer rows, and gives the device the lease. */
export async function startSitting(
  database: Database,
  person: Person,
  quizId: string,
  { device, password, address = '' }: Beginning,
  now: Instant,
): Promise<{ attempt: string }> {
  const { row, student, schedule, attempts, may } = await standing(database, person, quizId, now)
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
  const language = languagesOn(paper, edition).find((each) => each === schedule.language) ?? null
  try {
    await database.transaction(async (db) => {
      // An earlier paper may be taken up again until a further one is begun: only one of the two happens.
      const stays = last
        ? await db.run("UPDATE attempt SET touched = touched + 1 WHERE id = ? AND state <> 'open'", [last.id])
        : 1
      if (!stays) throw new Problem(409, 'may-not-sit', 'You have taken your last paper up again. Go on with that one.')
      if (!attempts.length) await takePlace(db, quizId, row.quiz.rules.places)
      await db.run(
        `INSERT INTO attempt (id, quiz_id, edition_id, student_id, number, window_id, state, started_at, deadline, on_time_until, hard_stop, lease, device, paper, language)
        VALUES (?, ?, ?, ?, ?, ?, 'open', ?, ?, ?, ?, 1, ?, ?, ?)`,
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
