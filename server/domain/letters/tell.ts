import type { QuizRow, QuizToldRow, ToldRow } from '../../database/tables'
import { dueNotices, letterOf, type DueNotice, type LetterFacts, type NoticeAttempt } from '../../../core/notices'
import { noticeNames } from '../../../core/rules'
import { shownInLists, releaseOf } from '../../../core/release'
import { scheduleFor, type Schedule } from '../../../core/schedule'
import { earlier, minute, plus, type Instant } from '../../../core/kit/time'
import type { Student } from '../../../core/quiz'
import { mapInOrder } from '../../database/batches'
import { toSql, toSqlOrNever } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { assignedTo } from '../classes/assigned'
import { studentsByIds } from '../classes/students'
import { grouped } from '../grouped'
import { newAddress } from '../ids'
import { writeLetters } from '../outbox'
import { currentState, loadQuiz, quizEndsNow, type LoadedQuiz } from '../quizzes/quizzes'
import { loadReleases } from '../quizzes/releases'
import { quizMoments, sightOf } from '../reviews/context'
import { loadViewings, noteViewings, type Viewings } from '../reviews/viewings'
import { loadAttempts, type Attempt } from '../sittings/attempts'
import { settle } from '../sittings/end'
import { textOf } from '../sittings/sat'
import { factsOf, handedInOf, placeOf, type LetterPlace, type Receiver } from './facts'

/** While it is open papers come in, marks and releases are given: nobody tells of that. */
const lookAgain = { open: 2 * minute, after: 5 * minute }
const lookFor = 60 * 24 * 60 * minute

/** What all letters of a quiz have in common. */
interface Around {
  row: LoadedQuiz
  place: LetterPlace
  viewings: Viewings
}

/** A letter that is due, with whom it is to and what it is about. */
interface Due {
  to: Receiver
  schedule: Schedule
  notice: DueNotice
  attempt: Attempt | undefined
  grade: LetterFacts['grade']
  /** How it stood when it was told before; undefined for never. */
  before: string | undefined
}

/** Notes something as told: of any number of processes one does. @returns whether it was this one */
async function claim(db: Db, quiz: string, { to, notice, before }: Due, now: Instant): Promise<boolean> {
  const { name, about, value } = notice
  const key = [quiz, to.id, name, about]
  const changed =
    before === undefined
      ? await db.run('INSERT IGNORE INTO told (quiz_id, person_id, name, about, value, at) VALUES (?, ?, ?, ?, ?, ?)', [
          ...key,
          value,
          toSql(now),
        ])
      : await db.run(
          'UPDATE told SET value = ?, at = ? WHERE quiz_id = ? AND person_id = ? AND name = ? AND about = ? AND value = ?',
          [value, toSql(now), ...key, before],
        )
  return changed > 0
}

/** Claims a letter and writes it, in one act. @returns whether it was written here */
async function tell(database: Database, { row, place, viewings }: Around, due: Due, now: Instant): Promise<boolean> {
  const { to, schedule, notice, attempt, grade } = due
  const { name, facets, at } = notice
  const sends = !notice.silent && Boolean(to.email)
  const handedIn = sends && name === 'receipt' && attempt ? await handedInOf(database, attempt, row.quiz) : null
  return database.transaction(async (db) => {
    if (!(await claim(db, row.id, due, now)) || !sends) return false
    // A result that is read in a letter has been seen.
    if (name === 'results' && attempt) await noteViewings(db, viewings, [{ attempt: attempt.id, facet: 'grade' }], now)
    const own = { attempt: notice.attempt, facets, at, handedIn, grade }
    const letter = letterOf(factsOf(row, place, to, schedule, name, own))
    await writeLetters(db, row.school, [{ to: to.email!, ...letter }], now)
    return true
  })
}

/** Those who are in a school and have an address in it, with a word at which reminders are called off. */
async function receivers(database: Database, ids: readonly string[]): Promise<Map<string, Receiver>> {
  if (!ids.length) return new Map()
  const rows = await database.rows<Receiver>(
    "SELECT id, name, email, reminders, reminder_word FROM person WHERE id IN (?) AND state = 'here' AND guest = 0",
    [[...ids]],
  )
  const without = rows.filter((row) => row.reminder_word === null)
  await mapInOrder(without, async (row) => {
    row.reminder_word = newAddress()
    const mine = await database.run('UPDATE person SET reminder_word = ? WHERE id = ? AND reminder_word IS NULL', [
      row.reminder_word,
      row.id,
    ])
    if (!mine) {
      const other = await database.one<Receiver>('SELECT reminder_word FROM person WHERE id = ?', [row.id])
      row.reminder_word = other?.reminder_word ?? null
    }
  })
  return new Map(rows.map((row) => [row.id, row]))
}

/** All letters of a quiz that are due. @returns how many were written, and when to look again; null for not before it changes */
async function tellOf(
  database: Database,
  id: string,
  now: Instant,
): Promise<{ written: number; next: Instant | null }> {
  const row = await loadQuiz(database, id)
  const { rules } = row.quiz
  const isOn = noticeNames.some((name) => rules.notices[name].on)
  if (row.stored !== 'published' || !isOn) return { written: 0, next: null }
  await settle(database, { quiz: id }, now)
  const [assigned, attempts, toldRows, ends, releases, place] = await Promise.all([
    assignedTo(database, rules),
    loadAttempts(database, { quizzes: [id] }),
    database.rows<ToldRow>('SELECT * FROM told WHERE quiz_id = ?', [id]),
    quizEndsNow(database, row),
    loadReleases(database, [id]),
    placeOf(database, row.school),
  ])
  const ended = attempts.filter(({ state }) => state !== 'open')
  const viewings = await loadViewings(
    database,
    ended.map((attempt) => attempt.id),
  )
  const told = grouped(toldRows, (each) => each.person_id)
  const own = grouped(attempts, (attempt) => attempt.student)
  // Whoever has sat it, or was told of it, and is no more among those for whom it is, is told that, and of their paper.
  const ids = [...new Set([...assigned.map((each) => each.id), ...own.keys(), ...told.keys()])]
  const [students, people] = [await studentsByIds(database, ids), await receivers(database, ids)]
  const released = releases.get(id) ?? new Map<string, Instant>()
  let written = 0
  let next: Instant | null = null

  await mapInOrder(ids, async (studentId) => {
    const [student, to] = [students.get(studentId), people.get(studentId)]
    if (!student || !to) return
    const schedule = scheduleFor(rules, student)
    const theirs = own.get(studentId) ?? []
    const known = new Map((told.get(studentId) ?? []).map((each) => [`${each.name} ${each.about}`, each.value]))
    const sights = sightsOf(row, ends, student, released, theirs, viewings, now)
    const { due, next: later } = dueNotices(
      rules,
      { schedule, attempts: sights.attempts, noReminders: !to.reminders, told: known },
      now,
    )
    if (later !== null) next = earlier(next, later)
    await mapInOrder(due, async (notice) => {
      const attempt = theirs.find((each) => each.id === notice.attempt)
      const before = known.get(`${notice.name} ${notice.about}`)
      const due = { to, schedule, notice, attempt, grade: sights.grade, before }
      if (await tell(database, { row, place, viewings }, due, now)) written++
    })
  })
  const state = currentState(row, ends, now)
  const end = ends.everyone.is === 'at' ? ends.everyone.at : null
  const hangs = ['receipt', 'release', 'results', 'reminder'].some((name) => rules.notices[name as 'receipt'].on)
  const soon =
    state === 'open'
      ? plus(now, lookAgain.open)
      : state === 'closed' && (end === null || now < plus(end, lookFor))
        ? plus(now, lookAgain.after)
        : null
  return { written, next: hangs && soon ? earlier(next, soon) : next }
}

/** What a student may see of each paper now, and their grade as they read it. */
function sightsOf(
  { quiz: { rules } }: LoadedQuiz,
  ends: Parameters<typeof quizMoments>[1],
  student: Student,
  released: ReadonlyMap<string, Instant>,
  attempts: readonly Attempt[],
  viewings: Viewings,
  now: Instant,
): { attempts: NoticeAttempt[]; grade: LetterFacts['grade'] } {
  const moments = quizMoments(rules, ends, student, released)
  let grade: LetterFacts['grade'] = null
  const seen = attempts.map((attempt): NoticeAttempt => {
    const { id, number, handedInAt, state } = attempt
    if (state === 'open') return { id, number, handedInAt: null, state, visible: null, gradeInLists: false }
    const sight = sightOf(moments, attempt, attempts, viewings.get(id) ?? [], now)
    const gradeInLists = sight.grade.percent !== null && shownInLists(releaseOf(rules), sight.visible, 'grade')
    if (gradeInLists) grade = { text: textOf(sight.grade, rules)!, passed: sight.grade.passed }
    return { id, number, handedInAt, state, visible: sight.visible, gradeInLists }
  })
  return { attempts: seen, grade }
}

/**
 * Writes the letters of quizzes that are due: of some quizzes that have changed since they were looked at, or of which
 * something comes due. Each is claimed by compare-and-set before; where a process ends in between it is looked at again in a
 * minute, and what was told is not told again.
 * @returns how many letters were written
 */
export async function tellQuizzes(database: Database, now: Instant, most = 20): Promise<number> {
  const rows = await database.rows<
    Pick<QuizRow, 'id'> & { stamp: string; known: QuizToldRow['stamp'] | null; next_at: string | null }
  >(
    `SELECT q.id, CONCAT(q.revision, ' ', s.roster, ' ', q.state) AS stamp, t.stamp AS known, t.next_at
    FROM quiz q JOIN school s ON s.id = q.school_id LEFT JOIN quiz_told t ON t.quiz_id = q.id
    WHERE q.state = 'published' AND (t.quiz_id IS NULL OR t.next_at <= ? OR t.stamp <> CONCAT(q.revision, ' ', s.roster, ' ', q.state))
    ORDER BY t.next_at IS NOT NULL, t.next_at LIMIT ?`,
    [toSql(now), most],
  )
  const counts = await mapInOrder(rows, async ({ id, stamp, known, next_at: nextAt }) => {
    const soon = toSql(plus(now, minute))
    const mine =
      known === null
        ? await database.run('INSERT IGNORE INTO quiz_told (quiz_id, stamp, next_at) VALUES (?, ?, ?)', [
            id,
            stamp,
            soon,
          ])
        : await database.run(
            'UPDATE quiz_told SET stamp = ?, next_at = ? WHERE quiz_id = ? AND stamp = ? AND next_at = ?',
            [stamp, soon, id, known, nextAt!],
          )
    if (!mine) return 0
    const { written, next } = await tellOf(database, id, now)
    await database.run('UPDATE quiz_told SET next_at = ? WHERE quiz_id = ? AND next_at = ?', [
      toSqlOrNever(next),
      id,
      soon,
    ])
    return written
  })
  return counts.reduce((a, b) => a + b, 0)
}
