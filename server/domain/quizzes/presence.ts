import type { PersonRow, QuizPresenceRow } from '../../database/tables'
import { second, plus, type Instant } from '../../../core/kit/time'
import { toSql } from '../../database/codec'
import type { Db } from '../../database/database'
import type { Person } from '../../people/people'

/** Somebody who has a quiz open. */
export interface Here {
  page: string
  person: string
  name: string
  /** The row they are on; null for none. */
  row: string | null
}

/** Seconds after which a page that was not heard of is gone. */
export const stays = 20

/** Says that a page has a quiz open, and on which row it is. */
export async function comeHere(
  db: Db,
  person: Person,
  quiz: string,
  page: string,
  row: string | null,
  now: Instant,
): Promise<void> {
  await db.run(
    'INSERT INTO quiz_presence (quiz_id, page, person_id, row_id, seen_at) VALUES (?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE row_id = VALUES(row_id), seen_at = VALUES(seen_at), person_id = VALUES(person_id)',
    [quiz, page, person.id, row, toSql(now)],
  )
}

/** Keeps the pages of this process where they are. */
export async function stayHere(db: Db, pages: readonly (readonly [quiz: string, page: string])[], now: Instant) {
  if (pages.length)
    await db.run('UPDATE quiz_presence SET seen_at = ? WHERE (quiz_id, page) IN (?)', [toSql(now), pages])
}

export async function goAway(db: Db, quiz: string, page: string): Promise<void> {
  await db.run('DELETE FROM quiz_presence WHERE quiz_id = ? AND page = ?', [quiz, page])
}

/** Who has some quizzes open, by quiz. */
export async function whoIsHere(db: Db, quizzes: readonly string[], now: Instant): Promise<Map<string, Here[]>> {
  const rows = quizzes.length
    ? await db.rows<Pick<QuizPresenceRow, 'quiz_id' | 'page' | 'person_id' | 'row_id'> & Pick<PersonRow, 'name'>>(
        'SELECT h.quiz_id, h.page, h.person_id, h.row_id, p.name FROM quiz_presence h JOIN person p ON p.id = h.person_id WHERE h.quiz_id IN (?) AND h.seen_at > ? ORDER BY p.name, h.page LIMIT 500',
        [quizzes, toSql(plus(now, -stays * second))],
      )
    : []
  return new Map(
    quizzes.map((quiz) => [
      quiz,
      rows
        .filter((row) => row.quiz_id === quiz)
        .map((row) => ({ page: row.page, person: row.person_id, name: row.name, row: row.row_id })),
    ]),
  )
}

/** Pages that nobody has heard of any more. */
export async function forgetPresence(db: Db, now: Instant): Promise<void> {
  await db.run('DELETE FROM quiz_presence WHERE seen_at < ? LIMIT 500', [toSql(plus(now, -10 * stays * second))])
}
