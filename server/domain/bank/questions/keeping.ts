import type { PersonRow } from '../../../database/tables'
import { z } from 'zod'
import { differences, type Difference } from '../../../../core/question/difference'
import { id, type Question } from '../../../../core/question'
import type { Instant } from '../../../../core/kit/time'
import type { Database, Db } from '../../../database/database'
import type { Person } from '../../../people/people'
import { Problem } from '../../problem'
import { recordLine } from '../../record'
import { ensureWritable } from './access'
import { ensureFolder, putInto } from '../describing/folders'
import { loadQuestion } from './questions'

export const keepingChange = z.strictObject({
  folder: id.nullable().optional(),
  sharing: z.enum(['school', 'named', 'private']).optional(),
  /** By e-mail: who may read or write where it is shared with named colleagues. */
  shares: z
    .array(z.strictObject({ email: z.email('Write an e-mail address.'), may: z.enum(['read', 'write']) }))
    .max(50)
    .optional(),
})

/** Where a question is kept and who may see it. Only its owner shares it. */
export async function setKeeping(
  database: Database,
  person: Person,
  question: string,
  change: z.infer<typeof keepingChange>,
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    await ensureWritable(db, person, question)
    if (change.folder !== undefined) {
      await ensureFolder(db, person, change.folder)
      await putInto(db, [{ question, folder: change.folder }])
    }
    if (change.sharing === undefined && change.shares === undefined) return
    const changed = await db.run(
      'UPDATE question SET sharing = COALESCE(?, sharing), version = version WHERE id = ? AND owner_id = ?',
      [change.sharing ?? null, question, person.id],
    )
    if (
      !changed &&
      !(await db.one('SELECT 1 AS yes FROM question WHERE id = ? AND owner_id = ?', [question, person.id]))
    )
      throw new Problem(403, 'owner', 'Only its owner decides who sees a question.')
    if (change.shares) await setShares(db, person, question, change.shares)
    await recordLine(db, now, person.id, 'question shared', question, {
      sharing: change.sharing ?? null,
      with: change.shares?.length ?? null,
    })
  })
}

async function setShares(
  db: Db,
  person: Person,
  question: string,
  shares: { email: string; may: 'read' | 'write' }[],
): Promise<void> {
  const rows = shares.length
    ? await db.rows<Pick<PersonRow, 'id' | 'email'>>(
        "SELECT id, email FROM person WHERE email IN (?) AND school_id = ? AND role = 'teacher'",
        [shares.map(({ email }) => email.toLowerCase()), person.school],
      )
    : []
  const missing = shares.find(({ email }) => !rows.some((row) => row.email === email.toLowerCase()))
  if (missing) throw new Problem(422, 'no-teacher', `No teacher of this school has the address ${missing.email}.`)
  await db.run('DELETE FROM question_share WHERE question_id = ?', [question])
  if (rows.length)
    await db.run('INSERT INTO question_share (question_id, person_id, may) VALUES ?', [
      rows.map((row) => [question, row.id, shares.find(({ email }) => email.toLowerCase() === row.email)!.may]),
    ])
}

/** What differs between two versions of a question. */
export async function versionDifferences(
  db: Db,
  person: Person,
  question: string,
  from: number,
  to: number,
): Promise<Difference[]> {
  const [before, after] = await Promise.all([
    loadQuestion(db, person, question, from),
    loadQuestion(db, person, question, to),
  ])
  return differences(before.question as Question, after.question as Question)
}
