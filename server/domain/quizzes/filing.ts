import { z } from 'zod'
import type { QuizRow } from '../../database/tables'
import { id } from '../../../core/question'
import type { Instant } from '../../../core/kit/time'
import { fromJson, toJson } from '../../database/codec'
import type { Database, Db, Value } from '../../database/database'
import type { Person } from '../../people/people'
import { ensureFolder } from '../bank/describing/folders'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'
import { newAddress } from '../ids'
import { ensureTeaches } from './quizzes'

/** How a quiz is kept: what it is about, when, where, and who may look at it. */
export interface Filing {
  description: string
  term: string
  tags: string[]
  folder: string | null
  /** With those named alone, or with every teacher of the school for looking at it and copying it. */
  sharing: 'named' | 'school'
}

export const filingChange = z.strictObject({
  description: z.string().trim().max(2000, 'A description has at most 2,000 characters.').optional(),
  term: z.string().trim().max(60, 'A term has at most 60 characters.').optional(),
  tags: z
    .array(z.string().trim().min(1).max(40, 'A tag has at most 40 characters.'))
    .max(20, 'A quiz has at most 20 tags.')
    .overwrite((tags) => [...new Set(tags)])
    .optional(),
  folder: id.nullable().optional(),
  sharing: z.enum(['named', 'school']).optional(),
})

type Row = Pick<QuizRow, 'description' | 'term' | 'tags' | 'folder_id' | 'sharing'>
export const filingColumns = 'q.description, q.term, q.tags, q.folder_id, q.sharing'

export const readFiling = (row: Row): Filing => ({
  description: row.description,
  term: row.term,
  tags: fromJson<string[]>(row.tags),
  folder: row.folder_id,
  sharing: row.sharing,
})

export async function filingOf(db: Db, quiz: string): Promise<Filing> {
  const row = await db.one<Row>(`SELECT ${filingColumns} FROM quiz q WHERE q.id = ?`, [quiz])
  if (!row) throw notFound('This quiz')
  return readFiling(row)
}

/** Describes a quiz, files it, shares it with the school. Whoever works in it may; only its owner shares it. */
export async function fileQuiz(
  database: Database,
  person: Person,
  quiz: string,
  change: z.infer<typeof filingChange>,
  now: Instant,
): Promise<Filing> {
  return database.transaction(async (db) => {
    await ensureTeaches(db, person, quiz)
    if (change.folder !== undefined) await ensureFolder(db, person, change.folder)
    if (change.sharing !== undefined) await ensureOwns(db, person, quiz)
    const set: [column: string, value: Value | undefined][] = [
      ['description', change.description],
      ['term', change.term],
      ['tags', change.tags && toJson(change.tags)],
      ['folder_id', change.folder],
      ['sharing', change.sharing],
    ]
    const given = set.filter((each): each is [string, Value] => each[1] !== undefined)
    if (given.length)
      await db.run(`UPDATE quiz SET ${given.map(([column]) => `${column} = ?`).join(', ')} WHERE id = ?`, [
        ...given.map(([, value]) => value),
        quiz,
      ])
    if (change.sharing)
      await recordLine(db, now, person.id, 'quiz shared with the school', quiz, { as: change.sharing })
    return filingOf(db, quiz)
  })
}

async function ensureOwns(db: Db, person: Person, quiz: string): Promise<void> {
  if (!(await db.one('SELECT 1 AS yes FROM quiz WHERE id = ? AND owner_id = ?', [quiz, person.id])))
    throw new Problem(403, 'not-owner', 'Only the owner of this quiz shares it. Ask them.')
}

/** A copy is described as what it was made of; who may look at it is for its owner to say. */
export async function copyFiling(db: Db, from: string, to: string): Promise<void> {
  await db.run(
    'UPDATE quiz t JOIN quiz f ON f.id = ? SET t.description = f.description, t.term = f.term, t.tags = f.tags, t.folder_id = f.folder_id WHERE t.id = ?',
    [from, to],
  )
}

/** The address by which every teacher of the school who has it may look at a quiz; null where there is none. */
export async function addressOf(db: Db, quiz: string): Promise<string | null> {
  return (await db.one<Pick<QuizRow, 'address'>>('SELECT address FROM quiz WHERE id = ?', [quiz]))?.address ?? null
}

/** Gives a quiz an address, a new one each time, or ends the one that it has: who came by it before may still look. Its owner alone does. */
export async function setAddress(
  database: Database,
  person: Person,
  quiz: string,
  on: boolean,
  now: Instant,
): Promise<{ address: string | null }> {
  const address = on ? newAddress() : null
  await database.transaction(async (db) => {
    await ensureOwns(db, person, quiz)
    await db.run('UPDATE quiz SET address = ? WHERE id = ?', [address, quiz])
    await recordLine(db, now, person.id, on ? 'quiz given an address' : 'address of quiz ended', quiz)
  })
  return { address }
}

/**
 * Lets in whoever has the address of a quiz, to look at it. Whoever works in it already goes on doing so.
 * @throws Problem 404 for an address that is none, or has ended
 */
export async function comeByAddress(
  database: Database,
  person: Person,
  address: string,
  now: Instant,
): Promise<{ id: string; title: string }> {
  return database.transaction(async (db) => {
    const quiz = await db.one<Pick<QuizRow, 'id' | 'title' | 'owner_id'>>(
      'SELECT id, title, owner_id FROM quiz WHERE address = ? AND school_id = ?',
      [address, person.school],
    )
    if (!quiz) throw new Problem(404, 'address', 'Nothing is shared at this address any more. Ask who gave it to you.')
    const added =
      quiz.owner_id === person.id
        ? 0
        : await db.run("INSERT IGNORE INTO quiz_teacher (quiz_id, person_id, may) VALUES (?, ?, 'read')", [
            quiz.id,
            person.id,
          ])
    if (added) await recordLine(db, now, person.id, 'came by address', quiz.id)
    return { id: quiz.id, title: quiz.title }
  })
}
