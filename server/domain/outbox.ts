import type { MailRow } from '../database/tables'
import { minute, plus, type Instant } from '../../core/kit/time'
import { fromSql, toSql } from '../database/codec'
import { mapInOrder } from '../database/batches'
import type { Database, Db } from '../database/database'
import type { Post, Letter } from '../standins/mail/mail'
import { newId } from './ids'

/** Puts letters into the outbox, in the transaction of what causes them: they leave when that has happened, once. */
export async function writeLetters(db: Db, school: string, letters: readonly Letter[], now: Instant): Promise<void> {
  if (!letters.length) return
  await db.run('INSERT INTO mail (id, school_id, to_address, subject, body, written_at, due_at) VALUES ?', [
    letters.map(({ to, subject, body }) => [newId(), school, to, subject, body, toSql(now), toSql(now)]),
  ])
}

/** Minutes until a letter is tried again, by how often it was; after the last it is given up, and its page says so. */
const pauses = [1, 5, 30, 120, 480]

/**
 * Sends letters that are due, at most so many. Each is claimed before it is sent, by compare-and-set on its time: of any
 * number of processes one sends it. Where a process ends between the two, it is tried again in ten minutes.
 * @returns how many were tried
 */
export async function sendDue(database: Database, post: Post, now: Instant, most = 20): Promise<number> {
  const due = await database.rows<Pick<MailRow, 'id' | 'to_address' | 'subject' | 'body' | 'tries' | 'due_at'>>(
    'SELECT id, to_address, subject, body, tries, due_at FROM mail WHERE due_at <= ? ORDER BY due_at LIMIT ?',
    [toSql(now), most],
  )
  await mapInOrder(due, async (letter) => {
    const mine = await database.run('UPDATE mail SET due_at = ?, tries = tries + 1 WHERE id = ? AND due_at = ?', [
      toSql(plus(now, 10 * minute)),
      letter.id,
      letter.due_at!,
    ])
    if (mine) await sendOne(database, post, letter, now)
  })
  return due.length
}

async function sendOne(
  database: Database,
  post: Post,
  { id, to_address: to, subject, body, tries }: Pick<MailRow, 'id' | 'to_address' | 'subject' | 'body' | 'tries'>,
  now: Instant,
): Promise<void> {
  try {
    await post({ to, subject, body })
    await database.run("UPDATE mail SET due_at = NULL, sent_at = ?, fault = '' WHERE id = ?", [toSql(now), id])
  } catch (error) {
    const pause = pauses[tries]
    await database.run('UPDATE mail SET due_at = ?, fault = ? WHERE id = ?', [
      pause === undefined ? null : toSql(plus(now, pause * minute)),
      String((error as Error).message).slice(0, 400),
      id,
    ])
  }
}

export interface SentLetter extends Letter {
  id: string
  at: Instant
  sentAt: Instant | null
  /** Why it was not sent, where it was tried. */
  fault: string
}

/** Letters of a school, the newest first. */
export async function listLetters(db: Db, school: string, most = 200): Promise<SentLetter[]> {
  const rows = await db.rows<MailRow>('SELECT * FROM mail WHERE school_id = ? ORDER BY written_at DESC, id LIMIT ?', [
    school,
    most,
  ])
  return rows.map((row) => ({
    id: row.id,
    to: row.to_address,
    subject: row.subject,
    body: row.body,
    at: fromSql(row.written_at),
    sentAt: row.sent_at && fromSql(row.sent_at),
    fault: row.fault,
  }))
}

const keptFor = 90 * 24 * 60 * minute
/** Forgets letters that are three months old. */
export async function forgetLetters(db: Db, now: Instant): Promise<void> {
  await db.run('DELETE FROM mail WHERE written_at < ? LIMIT 1000', [toSql(plus(now, -keptFor))])
}
