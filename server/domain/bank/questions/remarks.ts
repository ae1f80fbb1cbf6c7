import type { PersonRow, QuestionRemarkRow, QuestionRow } from '../../../database/tables'
import { z } from 'zod'
import type { Instant } from '../../../../core/kit/time'
import { fromSql, toSql } from '../../../database/codec'
import type { Database, Db } from '../../../database/database'
import { newId } from '../../ids'
import type { Person } from '../../../people/people'
import { notFound, Problem } from '../../problem'
import { ensureSeen } from '../finding/visible'

export const newRemark = z.strictObject({
  words: z.string().trim().min(1, 'Write what you want to say.').max(4000, 'A remark has at most 4,000 characters.'),
  /** Something is wrong here. */ doubt: z.boolean(),
})

export interface Remark {
  id: string
  version: number
  by: string
  at: Instant
  words: string
  doubt: boolean
  answeredBy: string | null
  answeredAt: Instant | null
}

async function ensureVisible(db: Db, person: Person, question: string): Promise<number> {
  await ensureSeen(db, person, question)
  const row = await db.one<Pick<QuestionRow, 'version'>>('SELECT version FROM question WHERE id = ?', [question])
  if (!row) throw notFound('This question')
  return row.version
}

/** What colleagues have said of a question, the oldest first. Refuses a question that the person may not see. */
export async function listRemarks(db: Db, person: Person, question: string): Promise<Remark[]> {
  await ensureVisible(db, person, question)
  const rows = await db.rows<
    Pick<QuestionRemarkRow, 'id' | 'version' | 'said_at' | 'words' | 'doubt' | 'answered_at'> &
      Pick<PersonRow, 'name'> & { answered: string | null }
  >(
    'SELECT r.id, r.version, p.name, r.said_at, r.words, r.doubt, a.name AS answered, r.answered_at FROM question_remark r JOIN person p ON p.id = r.said_by LEFT JOIN person a ON a.id = r.answered_by WHERE r.question_id = ? ORDER BY r.said_at',
    [question],
  )
  return rows.map((row) => ({
    id: row.id,
    version: row.version,
    by: row.name,
    at: fromSql(row.said_at),
    words: row.words,
    doubt: Boolean(row.doubt),
    answeredBy: row.answered,
    answeredAt: row.answered_at && fromSql(row.answered_at),
  }))
}

/** More than that is a conversation, which is held elsewhere. */
const mostRemarks = 300

const countDoubts =
  'UPDATE question SET doubts = (SELECT COUNT(*) FROM question_remark r WHERE r.question_id = question.id AND r.doubt = 1 AND r.answered_at IS NULL) WHERE id = ?'

/** Says something about a question, to colleagues. A doubt is seen wherever the question is offered, until it is answered. */
export async function addRemark(
  database: Database,
  person: Person,
  question: string,
  remark: z.infer<typeof newRemark>,
  now: Instant,
): Promise<{ id: string }> {
  return database.transaction(async (db) => {
    const version = await ensureVisible(db, person, question)
    const said = await db.one<{ n: number }>('SELECT COUNT(*) AS n FROM question_remark WHERE question_id = ?', [
      question,
    ])
    if (Number(said?.n) >= mostRemarks)
      throw new Problem(
        422,
        'remarks',
        `A question has at most ${mostRemarks} remarks. Talk to each other, and make a new version.`,
      )
    const id = newId()
    await db.run(
      'INSERT INTO question_remark (id, question_id, version, said_by, said_at, words, doubt) VALUES (?, ?, ?, ?, ?, ?, ?)',
      [id, question, version, person.id, toSql(now), remark.words, remark.doubt],
    )
    await db.run(countDoubts, [question])
    return { id }
  })
}

/** Answers a doubt: it is settled, by whom and when; or opens it again. */
export async function answerRemark(
  database: Database,
  person: Person,
  question: string,
  remark: string,
  answered: boolean,
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    await ensureVisible(db, person, question)
    const changed = await db.run(
      'UPDATE question_remark SET answered_by = ?, answered_at = ? WHERE id = ? AND question_id = ?',
      [answered ? person.id : null, answered ? toSql(now) : null, remark, question],
    )
    if (
      !changed &&
      !(await db.one('SELECT 1 AS yes FROM question_remark WHERE id = ? AND question_id = ?', [remark, question]))
    )
      throw notFound('This remark')
    await db.run(countDoubts, [question])
  })
}

/** Open doubts about questions that a person owns: for the owner's Today. */
export async function openDoubts(
  db: Db,
  person: Person,
): Promise<{ question: string; title: string; doubts: number }[]> {
  return db.rows<Pick<QuestionRow, 'title' | 'doubts'> & { question: string }>(
    'SELECT id AS question, title, doubts FROM question WHERE owner_id = ? AND doubts > 0 ORDER BY changed_at DESC LIMIT 20',
    [person.id],
  )
}
