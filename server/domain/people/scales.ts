import { z } from 'zod'
import type { GradeScaleRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { scaleBands, type SchoolScale } from '../../../core/marking'
import { cleanName } from '../../../core/people'
import { fromJson, toJson } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'

export const scaleSpec = z.strictObject({
  name: z
    .string()
    .transform(cleanName)
    .pipe(z.string().min(1, 'Give the scale a name.').max(80, 'The name of a scale has at most 80 characters.')),
  bands: scaleBands,
})
const mostScales = 100

/** Grade scales of a school, by name. */
export async function listScales(db: Db, school: string): Promise<SchoolScale[]> {
  const rows = await db.rows<Pick<GradeScaleRow, 'id' | 'name' | 'bands'>>(
    'SELECT id, name, bands FROM grade_scale WHERE school_id = ? ORDER BY name',
    [school],
  )
  return rows.map((row) => ({ ...row, bands: scaleBands.parse(fromJson(row.bands)) }))
}

/** Makes a scale, or changes the one that is named. Quizzes keep the bands that they were given; their checks tell that there are others. */
export async function keepScale(
  database: Database,
  person: Person,
  { name, bands }: z.infer<typeof scaleSpec>,
  now: Instant,
  scale: string | null = null,
): Promise<SchoolScale[]> {
  return database.transaction(async (db) => {
    await db.one('SELECT id FROM school WHERE id = ? FOR UPDATE', [person.school])
    const all = await listScales(db, person.school)
    if (scale !== null && !all.some(({ id }) => id === scale)) throw notFound('This scale')
    // As the database compares names: it knows more that look alike.
    const other = await db.one('SELECT 1 AS yes FROM grade_scale WHERE school_id = ? AND name = ? AND id <> ?', [
      person.school,
      name,
      scale ?? '',
    ])
    if (other) throw new Problem(422, 'name', 'Another scale has this name. Give it another one.')
    if (scale === null && all.length >= mostScales)
      throw new Problem(422, 'too-many', `A school has at most ${mostScales} scales.`)
    const kept = scale ?? newId()
    await db.run(
      'INSERT INTO grade_scale (id, school_id, name, bands) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE name = VALUES(name), bands = VALUES(bands)',
      [kept, person.school, name, toJson(bands)],
    )
    await recordLine(db, now, person.id, scale ? 'scale changed' : 'scale made', kept, { name, bands })
    return listScales(db, person.school)
  })
}

/** Takes a scale out. Quizzes that use it keep it. */
export async function dropScale(
  database: Database,
  person: Person,
  scale: string,
  now: Instant,
): Promise<SchoolScale[]> {
  return database.transaction(async (db) => {
    if (!(await db.run('DELETE FROM grade_scale WHERE id = ? AND school_id = ?', [scale, person.school])))
      throw notFound('This scale')
    await recordLine(db, now, person.id, 'scale taken out', scale)
    return listScales(db, person.school)
  })
}
