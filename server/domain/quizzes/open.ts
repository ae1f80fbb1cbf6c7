import type { Instant } from '../../../core/kit/time'
import {
  frozenLists,
  mayBecome,
  questionsUsed,
  withHeld,
  type Check,
  type Edition,
  type StoredState,
} from '../../../core/quiz'
import { toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { isAhead } from './ahead'
import { checksFor } from './checks'
import { drawSecret, freeze } from './edition'
import { heldNow } from './held'
import { ensureTeaches, indexQuizzes, loadQuiz } from './quizzes'
import { guardQuiz } from './start-guard'

function ensureNothingStops(checks: Check[]): void {
  const stops = checks.filter((check) => check.level === 'stop')
  if (stops.length)
    throw new Problem(
      422,
      'checks',
      `${stops.length === 1 ? 'One thing keeps' : `${stops.length} things keep`} this quiz from opening: ${stops[0]!.title.toLowerCase()}.`,
      { checks: stops },
    )
}

/**
 * Opens a quiz, or gives later starts a new edition of one that is open: checks first, then the content is frozen.
 * Freezing, the change of state and its record are one transaction.
 */
export async function openQuiz(
  database: Database,
  person: Person,
  quizId: string,
  now: Instant,
): Promise<{ edition: number }> {
  return database.transaction(async (db) => {
    await db.one('SELECT id FROM quiz WHERE id = ? FOR UPDATE', [quizId])
    await ensureTeaches(db, person, quizId)
    const row = await loadQuiz(db, quizId)
    const held = await heldNow(db, row)
    ensureNothingStops(await checksFor(db, person, row, held, now))
    const quiz = { ...row.quiz, content: frozenLists(withHeld(row.quiz.content, held)) }
    if (row.stored === 'published' && !(await isAhead(db, row, held)))
      throw new Problem(409, 'open-already', 'This quiz is open already, as it stands.')
    const edition = await freeze(db, person.school, quiz, await nextEdition(db, quizId), await drawSecret(db, quizId))
    await keepEdition(db, quizId, edition, person.id, now)
    await guardQuiz(db, quizId)
    const changed = await db.run(
      "UPDATE quiz SET state = 'published', edition_id = ?, edition_revision = ?, changed_at = ? WHERE id = ? AND revision = ?",
      [edition.id, row.revision, toSql(now), quizId, row.revision],
    )
    if (changed === 0)
      throw new Problem(409, 'moved-on', 'The quiz changed at the same moment. Look at it and open it again.')
    if (held.size) await indexQuizzes(db, [{ id: quizId, quiz }], person.school)
    await db.run('UPDATE question SET last_used_at = ? WHERE id IN (?)', [toSql(now), questionsUsed(quiz.content)])
    await recordLine(db, now, person.id, row.stored === 'published' ? 'new edition' : 'quiz opened', quizId, {
      edition: edition.number,
    })
    return { edition: edition.number }
  })
}

/** The number of the edition that a quiz gets next. */
export async function nextEdition(db: Db, quizId: string): Promise<number> {
  const last = await db.one<{ number: number }>('SELECT MAX(number) AS number FROM edition WHERE quiz_id = ?', [quizId])
  return (last?.number ?? 0) + 1
}

export const keepEdition = (db: Db, quizId: string, edition: Edition, by: string, now: Instant) =>
  db.run('INSERT INTO edition (id, quiz_id, number, body, made_by, made_at) VALUES (?, ?, ?, ?, ?, ?)', [
    edition.id,
    quizId,
    edition.number,
    toJson(edition),
    by,
    toSql(now),
  ])

/** Withdraws, files or brings back a quiz. Sittings under way go on when it is withdrawn: nobody loses work. */
export async function setQuizState(
  database: Database,
  person: Person,
  quizId: string,
  to: StoredState,
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    await db.one('SELECT id FROM quiz WHERE id = ? FOR UPDATE', [quizId])
    const row = await loadQuiz(db, quizId)
    if (!mayBecome(row.stored, to) || (to === 'published' && !row.edition))
      throw new Problem(409, 'state', 'The quiz cannot go to that state from where it is.')
    await guardQuiz(db, quizId)
    const changed = await db.run('UPDATE quiz SET state = ?, changed_at = ? WHERE id = ? AND state = ?', [
      to,
      toSql(now),
      quizId,
      row.stored,
    ])
    if (changed) await recordLine(db, now, person.id, `quiz ${to}`, quizId)
  })
}

/** "When the teacher releases it", for one class. */
export async function releaseTo(
  database: Database,
  person: Person,
  quizId: string,
  classId: string,
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    const added = await db.run(
      'INSERT IGNORE INTO released (quiz_id, class_id, at) SELECT ?, id, ? FROM class WHERE id = ? AND school_id = ?',
      [quizId, toSql(now), classId, person.school],
    )
    if (added) await recordLine(db, now, person.id, 'released', quizId, { class: classId })
  })
}

/** Takes a release back: it hides again, but what has been seen has been seen. */
export async function unrelease(
  database: Database,
  person: Person,
  quizId: string,
  classId: string,
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    const taken = await db.run('DELETE FROM released WHERE quiz_id = ? AND class_id = ?', [quizId, classId])
    if (taken) await recordLine(db, now, person.id, 'release taken back', quizId, { class: classId })
  })
}
