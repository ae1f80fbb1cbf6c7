import { z } from 'zod'
import type { TermRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { cleanName } from '../../../core/people'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'

const day = z.iso.date('Write a day, as 2026-09-01.')
export const termSpec = z
  .strictObject({
    name: z
      .string()
      .transform(cleanName)
      .pipe(z.string().min(1, 'Give the term a name.').max(80, 'The name of a term has at most 80 characters.')),
    starts: day,
    ends: day,
  })
  .refine(({ starts, ends }) => starts <= ends, {
    path: ['ends'],
    message: 'A term ends on or after the day it starts.',
  })
export type TermSpec = z.infer<typeof termSpec>
export interface Term extends TermSpec {
  id: string
  classes: number
}

/** Terms of a school, the latest first, with how many classes are in each. */
export async function listTerms(db: Db, school: string): Promise<Term[]> {
  const rows = await db.rows<Pick<TermRow, 'id' | 'name' | 'starts' | 'ends'> & { classes: number }>(
    `SELECT t.id, t.name, t.starts, t.ends, COUNT(c.id) AS classes FROM term t LEFT JOIN class c ON c.term_id = t.id
    WHERE t.school_id = ? GROUP BY t.id ORDER BY t.starts DESC, t.name LIMIT 500`,
    [school],
  )
  return rows.map((row) => ({ ...row, classes: Number(row.classes) }))
}

/** Makes a term, or changes the one that is named. @throws Problem 422 where another has the name */
export async function keepTerm(
  database: Database,
  person: Person,
  spec: TermSpec,
  now: Instant,
  term: string | null = null,
): Promise<Term[]> {
  return database.transaction(async (db) => {
    if (term !== null && !(await db.one('SELECT 1 FROM term WHERE id = ? AND school_id = ?', [term, person.school])))
      throw notFound('This term')
    const other = await db.one('SELECT 1 FROM term WHERE school_id = ? AND name = ? AND id <> ?', [
      person.school,
      spec.name,
      term ?? '',
    ])
    if (other) throw new Problem(422, 'name', 'Another term has this name. Give it another one.')
    const kept = term ?? newId()
    await db.run(
      `INSERT INTO term (id, school_id, name, starts, ends) VALUES (?, ?, ?, ?, ?)
      ON DUPLICATE KEY UPDATE name = VALUES(name), starts = VALUES(starts), ends = VALUES(ends)`,
      [kept, person.school, spec.name, spec.starts, spec.ends],
    )
    await recordLine(db, now, person.id, term ? 'term changed' : 'term made', kept, spec)
    return listTerms(db, person.school)
  })
}

/** Takes out a term that no class is in. */
export async function dropTerm(database: Database, person: Person, term: string, now: Instant): Promise<Term[]> {
  return database.transaction(async (db) => {
    const found = await db.one<{ classes: number }>(
      'SELECT (SELECT COUNT(*) FROM class c WHERE c.term_id = t.id) AS classes FROM term t WHERE t.id = ? AND t.school_id = ?',
      [term, person.school],
    )
    if (!found) throw notFound('This term')
    if (Number(found.classes))
      throw new Problem(422, 'in-use', 'Classes are in this term. Put them into another one first.')
    await db.run('DELETE FROM term WHERE id = ?', [term])
    await recordLine(db, now, person.id, 'term taken out', term)
    return listTerms(db, person.school)
  })
}
