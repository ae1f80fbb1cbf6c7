import { z } from 'zod'
import type { OwnFieldRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { cleanName, fieldSorts, readOwnValue, type OwnField } from '../../../core/people'
import { id } from '../../../core/question'
import { mapInOrder } from '../../database/batches'
import { fromJson, toJson } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { grouped } from '../grouped'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'

const name = z
  .string()
  .transform(cleanName)
  .pipe(z.string().min(1, 'Give the field a name.').max(80, 'The name of a field has at most 80 characters.'))
export const fieldSpec = z
  .strictObject({
    name,
    sort: z.enum(fieldSorts),
    choices: z.array(name).max(100, 'At most 100 can be chosen from.'),
  })
  .refine(({ sort, choices }) => sort !== 'choice' || choices.length > 1, {
    path: ['choices'],
    message: 'Give at least two things to choose from.',
  })
export const ownValues = z.record(id, z.string().max(2000))
const mostFields = 50

/** Fields that a school keeps of its students, by name. */
export async function listFields(db: Db, school: string): Promise<OwnField[]> {
  const rows = await db.rows<Pick<OwnFieldRow, 'id' | 'name' | 'sort' | 'choices'>>(
    'SELECT id, name, sort, choices FROM own_field WHERE school_id = ? AND taken_out = 0 ORDER BY name',
    [school],
  )
  return rows.map((row) => ({ ...row, choices: fromJson(row.choices) as string[] }))
}

/**
 * Makes a field, or changes the one that is named: its sort stays. One of the name that was taken out comes back with
 * its values.
 */
export async function keepField(
  database: Database,
  person: Person,
  spec: z.infer<typeof fieldSpec>,
  now: Instant,
  field: string | null = null,
): Promise<OwnField[]> {
  return database.transaction(async (db) => {
    await db.one('SELECT id FROM school WHERE id = ? FOR UPDATE', [person.school])
    const all = await db.rows<Pick<OwnFieldRow, 'id' | 'sort' | 'taken_out'> & { named: number }>(
      // As the database compares names: it knows more that look alike.
      'SELECT id, name = ? AS named, sort, taken_out FROM own_field WHERE school_id = ?',
      [spec.name, person.school],
    )
    const named = all.find((each) => Number(each.named))
    const before = field === null ? (named?.taken_out ? named : undefined) : all.find((each) => each.id === field)
    if (field !== null && !before) throw notFound('This field')
    if (named && named.id !== before?.id)
      throw new Problem(422, 'name', 'Another field has this name. Give it another one.')
    if (before && before.sort !== spec.sort)
      throw new Problem(422, 'sort', 'What is kept in a field stays of its sort. Make another field for another sort.')
    if (!before && all.filter((each) => !each.taken_out).length >= mostFields)
      throw new Problem(422, 'too-many', `A school has at most ${mostFields} fields of its own.`)
    const kept = before?.id ?? newId()
    await db.run(
      `INSERT INTO own_field (id, school_id, name, sort, choices) VALUES (?, ?, ?, ?, ?)
      ON DUPLICATE KEY UPDATE name = VALUES(name), choices = VALUES(choices), taken_out = 0`,
      [kept, person.school, spec.name, spec.sort, toJson(spec.sort === 'choice' ? spec.choices : [])],
    )
    await recordLine(db, now, person.id, before ? 'field changed' : 'field made', kept, spec)
    return listFields(db, person.school)
  })
}

/** Takes a field out of sight. Its values stay, and come back with a field of its name. */
export async function dropField(database: Database, person: Person, field: string, now: Instant): Promise<OwnField[]> {
  return database.transaction(async (db) => {
    const won = await db.run('UPDATE own_field SET taken_out = 1 WHERE id = ? AND school_id = ? AND taken_out = 0', [
      field,
      person.school,
    ])
    if (!won) throw notFound('This field')
    await recordLine(db, now, person.id, 'field taken out', field)
    return listFields(db, person.school)
  })
}

/** What is kept of people, by person and field. */
export async function valuesOf(db: Db, people: readonly string[]): Promise<Map<string, Record<string, string>>> {
  if (!people.length) return new Map()
  const rows = await db.rows<{ person_id: string; field_id: string; value: string }>(
    `SELECT v.person_id, v.field_id, v.value FROM own_value v JOIN own_field f ON f.id = v.field_id
    WHERE v.person_id IN (?) AND f.taken_out = 0`,
    [[...people]],
  )
  return new Map(
    [...grouped(rows, (row) => row.person_id)].map(([person, each]) => [
      person,
      Object.fromEntries(each.map((row) => [row.field_id, row.value])),
    ]),
  )
}

/**
 * Keeps values of a student; '' takes one out. All or none.
 * @throws Problem 422 where one is not of its field's sort
 */
export async function keepValues(
  database: Database,
  person: Person,
  student: string,
  values: z.infer<typeof ownValues>,
  now: Instant,
): Promise<Record<string, string>> {
  return database.transaction(async (db) => {
    const fields = new Map((await listFields(db, person.school)).map((field) => [field.id, field]))
    const read = Object.entries(values).map(([key, typed]) => {
      const field = fields.get(key)
      if (!field) throw new Problem(422, 'field', 'A field that was filled in is not there any more.')
      const result = readOwnValue(field, typed)
      if ('fault' in result) throw new Problem(422, 'value', result.fault)
      return { key, name: field.name, value: result.value }
    })
    await mapInOrder(read, ({ key, value }) =>
      value
        ? db.run(
            'INSERT INTO own_value (person_id, field_id, value) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE value = VALUES(value)',
            [student, key, value],
          )
        : db.run('DELETE FROM own_value WHERE person_id = ? AND field_id = ?', [student, key]),
    )
    // Which were changed, not to what: what a school keeps of somebody is in no log.
    await recordLine(db, now, person.id, 'own fields set', student, { fields: read.map((each) => each.name) })
    return (await valuesOf(db, [student])).get(student) ?? {}
  })
}
