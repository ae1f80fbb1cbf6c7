import type { QuizNoticeRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import type { Rules } from '../../../core/quiz'
import { isDone } from '../../../core/rules'
import { fromSql, toSql } from '../../database/codec'
import type { Db } from '../../database/database'
import type { Attempt } from './attempts'

/** When somebody first opened a quiz's page, and when they said that they are done with it. */
export interface Notice {
  seenAt: Instant
  confirmedAt: Instant | null
}

/** Notices of a quiz or of a person, by the other's id. Nothing is read where no rule asks for them. */
export async function loadNotices(
  db: Db,
  of: { quiz: string } | { person: string },
  rules: readonly Pick<Rules, 'done'>[],
): Promise<Map<string, Notice>> {
  if (!rules.some(({ done }) => done === 'seen' || done === 'confirmed')) return new Map()
  const [column, id] = 'quiz' in of ? ['quiz_id', of.quiz] : ['person_id', of.person]
  const rows = await db.rows<QuizNoticeRow>(`SELECT * FROM quiz_notice WHERE ${column} = ?`, [id!])
  return new Map(
    rows.map((row) => [
      'quiz' in of ? row.person_id : row.quiz_id,
      { seenAt: fromSql(row.seen_at), confirmedAt: row.confirmed_at && fromSql(row.confirmed_at) },
    ]),
  )
}

/** Somebody has opened a quiz's page; the first time counts. */
export async function noteSeen(db: Db, quiz: string, person: string, now: Instant): Promise<void> {
  await db.run('INSERT IGNORE INTO quiz_notice (quiz_id, person_id, seen_at) VALUES (?, ?, ?)', [
    quiz,
    person,
    toSql(now),
  ])
}

/** Somebody says that they are done with a quiz, or takes that back. Said twice, the first time counts. */
export async function noteConfirmed(
  db: Db,
  quiz: string,
  person: string,
  confirmed: boolean,
  now: Instant,
): Promise<void> {
  await noteSeen(db, quiz, person, now)
  await db.run(
    `UPDATE quiz_notice SET confirmed_at = ${confirmed ? 'COALESCE(confirmed_at, ?)' : 'NULL'} WHERE quiz_id = ? AND person_id = ?`,
    [...(confirmed ? [toSql(now)] : []), quiz, person],
  )
}

/** Whether somebody is done with a quiz by its rule. */
export const doneWith = (
  rules: Pick<Rules, 'done'>,
  notice: Notice | undefined,
  attempts: readonly Attempt[],
  passed: boolean | null,
): boolean =>
  isDone(rules.done, { seenAt: notice?.seenAt ?? null, confirmedAt: notice?.confirmedAt ?? null, attempts, passed })
