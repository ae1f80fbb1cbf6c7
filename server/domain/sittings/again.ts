import { beforeAll, type End, type Instant } from '../../../core/kit/time'
import type { Rules, Student } from '../../../core/quiz'
import { againUntil, mayAgain, scheduleFor, windowFor, type Again } from '../../../core/schedule'
import type { Database, Db } from '../../database/database'
import { toSql } from '../../database/codec'
import { studentsByIds } from '../classes/students'
import { Problem } from '../problem'
import { loadQuiz, type LoadedQuiz } from '../quizzes/quizzes'
import { holdChanges } from '../quizzes/start-guard'
import { recordLine } from '../record'
import { loadAttempts, type Attempt } from './attempts'
import { ownAttempt } from './own-attempt'

/** Until when a paper may be taken up again by its rules and its own time, as they are now. */
export const againEnd = (rules: Rules, student: Student, attempt: Pick<Attempt, 'window' | 'limits'>): End =>
  rules.attempts.again
    ? againUntil(scheduleFor(rules, student), windowFor(rules, student, attempt.window), attempt.limits)
    : beforeAll

/** Whether a student may take an attempt up again; reads what somebody has marked by hand. */
export async function againFor(
  db: Db,
  { quiz: { rules }, stored }: Pick<LoadedQuiz, 'quiz' | 'stored'>,
  student: Student,
  attempt: Attempt,
  own: readonly Attempt[],
  now: Instant,
): Promise<Again> {
  if (!rules.attempts.again) return { may: false, sentence: 'Handing in was final.' }
  const marked = await db.one('SELECT 1 FROM hand_mark WHERE attempt_id = ? LIMIT 1', [attempt.id])
  const isLast = own.every(({ number }) => number <= attempt.number)
  return mayAgain(
    {
      state: attempt.state,
      endedBy: attempt.endedBy,
      isLast,
      marking: marked !== undefined,
      isGiven: stored === 'published',
    },
    againEnd(rules, student, attempt),
    now,
  )
}

/**
 * A student takes up a paper again that they have handed in (semantics §6): the same attempt is under way again, and its
 * marks are gone until it is handed in anew. Asked again while it is under way, it says the same.
 * @throws Problem 409 with the reason where it may not be
 */
export async function takeUpAgain(database: Database, person: string, id: string, now: Instant): Promise<void> {
  const { quiz } = await ownAttempt(database, person, id, now)
  const { school } = await loadQuiz(database, quiz)
  await database.transaction(async (db) => {
    // It is a start: whoever closes the quiz, changes its rules or what the student needs comes before or after.
    await holdChanges(db, { quiz, school }, person)
    // This writes before anything is read: whoever begins a further attempt or marks this one comes before or after.
    const held = await db.run(
      "UPDATE attempt SET touched = touched + 1 WHERE id = ? AND state = 'handed' AND hard_stop >= ?",
      [id, toSql(now)],
    )
    const [attempt] = await loadAttempts(db, { ids: [id] })
    if (attempt!.state === 'open') return
    const row = await loadQuiz(db, quiz)
    const student = (await studentsByIds(db, [person])).get(person)!
    const own = await loadAttempts(db, { quizzes: [attempt!.quiz], student: person })
    const again = await againFor(db, row, student, attempt!, own, now)
    if (!again.may) throw new Problem(409, 'again', again.sentence)
    if (!held) throw new Problem(409, 'again', 'The time of this paper is up.')
    await db.run(
      "UPDATE attempt SET state = 'open', handed_in_at = NULL, ended_by = NULL, days_late = 0, minutes_over = 0, score = NULL, score_rounded = NULL, possible = NULL, section_scores = NULL, marked_at = NULL, lease = lease + 1, device = '', seen_at = NULL WHERE id = ?",
      [id],
    )
    await db.run('DELETE FROM mark WHERE attempt_id = ?', [id])
    await recordLine(db, now, person, 'taken up again', id, { until: again.until })
  })
}
