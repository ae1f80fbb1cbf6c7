import type { PersonRow, QuizOpeningRow } from '../../database/tables'
import { sentenceTime } from '../../../core/kit/phrases'
import { minute, plus, type Instant } from '../../../core/kit/time'
import { mapInOrder } from '../../database/batches'
import { fromSql, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { findPerson, type Person } from '../../people/people'
import { writeLetters } from '../outbox'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { openQuiz } from './open'
import { ensureTeaches, loadQuiz } from './quizzes'

/** When a quiz opens by itself; null where it does not. */
export async function openingOf(db: Db, quiz: string): Promise<Instant | null> {
  const row = await db.one<Pick<QuizOpeningRow, 'at'>>('SELECT at FROM quiz_opening WHERE quiz_id = ?', [quiz])
  return row ? fromSql(row.at) : null
}

/** Sets when a draft opens by itself, or calls it off (null). What stops it then is told then. @throws Problem 409, 422 */
export async function setOpening(
  database: Database,
  person: Person,
  quiz: string,
  at: Instant | null,
  now: Instant,
): Promise<{ at: Instant | null }> {
  if (at !== null && at <= now)
    throw new Problem(422, 'past', 'This time has passed. Open it at once, or choose a later time.')
  await database.transaction(async (db) => {
    await ensureTeaches(db, person, quiz)
    const { stored } = await loadQuiz(db, quiz)
    if (at !== null && stored !== 'draft') throw new Problem(409, 'state', 'Only a draft is opened at a set time.')
    if (at === null) {
      if (await db.run('DELETE FROM quiz_opening WHERE quiz_id = ?', [quiz]))
        await recordLine(db, now, person.id, 'opening called off', quiz)
      return
    }
    await db.run(
      'INSERT INTO quiz_opening (quiz_id, at, by_id) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE at = VALUES(at), by_id = VALUES(by_id), tried_at = NULL',
      [quiz, toSql(at), person.id],
    )
    await recordLine(db, now, person.id, 'opening set', quiz, { at, says: sentenceTime(at, person.zone) })
  })
  return { at }
}

/** What keeps it from opening is written down, and whoever set it is told. */
async function refuse(database: Database, quiz: string, person: Person, sentence: string, now: Instant): Promise<void> {
  await database.transaction(async (db) => {
    if (!(await db.run('DELETE FROM quiz_opening WHERE quiz_id = ?', [quiz]))) return
    await recordLine(db, now, null, 'opening refused', quiz, { says: sentence })
    const [{ quiz: document }, to] = [
      await loadQuiz(db, quiz),
      await db.one<Pick<PersonRow, 'email'>>('SELECT email FROM person WHERE id = ?', [person.id]),
    ]
    if (!to?.email) return
    const { title } = document.content
    const body = `Hello ${person.name},\n\n“${title}” was to open by itself and could not: ${sentence}\n\nNobody can sit it. Mend it, and open it.\n`
    await writeLetters(db, person.school, [{ to: to.email, subject: `Not opened: ${title}`.slice(0, 200), body }], now)
  })
}

async function openOne(database: Database, { quiz_id: quiz, by_id: by }: QuizOpeningRow, now: Instant): Promise<void> {
  const person = await findPerson(database, by)
  if (!person) return
  try {
    // Somebody has opened it meanwhile: what was changed since goes to nobody by itself.
    const { stored } = await loadQuiz(database, quiz)
    if (stored === 'draft') await openQuiz(database, person, quiz, now)
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    // It changed at the very moment: it is tried again.
    if (error.code === 'moved-on') return
    if (error.code !== 'open-already') return refuse(database, quiz, person, error.sentence, now)
  }
  await database.run('DELETE FROM quiz_opening WHERE quiz_id = ?', [quiz])
}

/** How long a process has for one before another tries it. */
const patience = 5 * minute

/**
 * Opens quizzes whose time has come, as whoever set it, with the right that they have by now. Each is claimed by
 * compare-and-set; one that is opened twice is open.
 */
export async function openDue(database: Database, now: Instant, most = 10): Promise<number> {
  const rows = await database.rows<QuizOpeningRow>(
    'SELECT * FROM quiz_opening WHERE at <= ? AND (tried_at IS NULL OR tried_at <= ?) ORDER BY at LIMIT ?',
    [toSql(now), toSql(plus(now, -patience)), most],
  )
  await mapInOrder(rows, async (row) => {
    const mine = await database.run('UPDATE quiz_opening SET tried_at = ? WHERE quiz_id = ? AND tried_at <=> ?', [
      toSql(now),
      row.quiz_id,
      row.tried_at,
    ])
    if (mine) await openOne(database, row, now)
  })
  return rows.length
}
