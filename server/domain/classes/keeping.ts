import { z } from 'zod'
import type { ClassRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { cleanName } from '../../../core/people'
import { id } from '../../../core/question'
import { toSql } from '../../database/codec'
import type { Database, Db, Value } from '../../database/database'
import type { Person } from '../../people/people'
import { newId } from '../ids'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { rosterChanged } from './roster-stamp'

export const className = z
  .string()
  .transform(cleanName)
  .pipe(z.string().min(1, 'Give the class a name.').max(80, 'The name of a class has at most 80 characters.'))
/** What is changed of a class; what is not named stays. */
export const classChange = z.strictObject({
  name: className.optional(),
  term: id.nullable().optional(),
  filed: z.boolean().optional(),
  /** Whether all its quizzes are held back. */
  held: z.boolean().optional(),
})

const mostClasses = 5000

/** Makes a class of the teacher's own. @returns its id */
export async function makeClass(
  database: Database,
  person: Person,
  { name, term = null }: { name: string; term?: string | null },
  now: Instant,
): Promise<{ id: string; name: string }> {
  return database.transaction(async (db) => {
    await ensureTerm(db, person.school, term)
    const there = await db.one<{ n: number }>(
      'SELECT COUNT(*) AS n FROM class WHERE school_id = ? AND link_of IS NULL',
      [person.school],
    )
    if (Number(there!.n) >= mostClasses)
      throw new Problem(
        422,
        'too-many',
        `A school has at most ${mostClasses} classes. File no more away; ask who runs it.`,
      )
    const made = newId()
    await db.run('INSERT INTO class (id, school_id, name, term_id) VALUES (?, ?, ?, ?)', [
      made,
      person.school,
      name,
      term,
    ])
    await db.run('INSERT INTO class_teacher (class_id, person_id) VALUES (?, ?)', [made, person.id])
    await recordLine(db, now, person.id, 'class made', made, { name })
    return { id: made, name }
  })
}

/** Renames a class, puts it into a term, files it away or brings it back. Its quizzes and papers stay as they are. */
export async function changeClass(
  database: Database,
  person: Person,
  classId: string,
  change: z.infer<typeof classChange>,
  now: Instant,
): Promise<Pick<ClassRow, 'id' | 'name'> & { term: string | null; filed: boolean }> {
  return database.transaction(async (db) => {
    if (change.term !== undefined) await ensureTerm(db, person.school, change.term)
    const set: [column: string, value: Value | undefined][] = [
      ['name', change.name],
      ['term_id', change.term],
      ['filed', change.filed],
      // All its quizzes are held back, or given again.
      ['held_at', change.held === undefined ? undefined : change.held ? toSql(now) : null],
      // Nobody joins a class that is filed away.
      ...(change.filed ? ([['join_code', null]] as [string, Value][]) : []),
    ]
    const given = set.filter((each): each is [string, Value] => each[1] !== undefined)
    if (given.length) {
      await db.run(`UPDATE class SET ${given.map(([column]) => `${column} = ?`).join(', ')} WHERE id = ?`, [
        ...given.map(([, value]) => value),
        classId,
      ])
      await rosterChanged(db, person.school)
      await recordLine(db, now, person.id, 'class changed', classId, change)
    }
    const row = await db.one<Pick<ClassRow, 'id' | 'name' | 'term_id' | 'filed'>>(
      'SELECT id, name, term_id, filed FROM class WHERE id = ?',
      [classId],
    )
    return { id: row!.id, name: row!.name, term: row!.term_id, filed: Boolean(row!.filed) }
  })
}

async function ensureTerm(db: Db, school: string, term: string | null): Promise<void> {
  if (term !== null && !(await db.one('SELECT 1 FROM term WHERE id = ? AND school_id = ?', [term, school])))
    throw new Problem(422, 'term', 'This term is no longer there. Choose another.')
}
