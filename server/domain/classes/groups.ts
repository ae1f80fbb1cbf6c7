import { z } from 'zod'
import type { ClassGroupRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { cleanName } from '../../../core/people'
import type { Accommodation } from '../../../core/quiz'
import { id } from '../../../core/question'
import { toJson } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { readAccommodation } from '../../documents/read'
import type { Person } from '../../people/people'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'
import { needsChanged } from './needs'

export interface Group {
  id: string
  name: string
  members: string[]
  accommodation: Accommodation
}

export const mostGroups = 100
export const groupSpec = z.strictObject({
  name: z
    .string()
    .transform(cleanName)
    .pipe(z.string().min(1, 'Give the group a name.').max(80, 'The name of a group has at most 80 characters.')),
  members: z.array(id).max(2000),
})

/** Groups of a class by name, with who is in them. */
export async function groupsOf(db: Db, classId: string): Promise<Group[]> {
  const [groups, members] = [
    await db.rows<Pick<ClassGroupRow, 'id' | 'name' | 'accommodation'>>(
      'SELECT id, name, accommodation FROM class_group WHERE class_id = ? ORDER BY name',
      [classId],
    ),
    await db.rows<{ group_id: string; person_id: string }>(
      'SELECT m.group_id, m.person_id FROM class_group_member m JOIN class_group g ON g.id = m.group_id WHERE g.class_id = ?',
      [classId],
    ),
  ]
  const byGroup = new Map(groups.map(({ id: group }) => [group, [] as string[]]))
  for (const row of members) byGroup.get(row.group_id)?.push(row.person_id)
  return groups.map(({ id: group, name, accommodation }) => ({
    id: group,
    name,
    members: byGroup.get(group)!,
    accommodation: readAccommodation(accommodation),
  }))
}

/**
 * Makes a group of a class, or says anew who is in it. Only students of the class can be; what the group is given
 * reaches who comes in and leaves who goes, also on a paper under way (which nothing shortens).
 */
export async function keepGroup(
  database: Database,
  person: Person,
  classId: string,
  { name, members }: z.infer<typeof groupSpec>,
  now: Instant,
  group: string | null = null,
): Promise<Group[]> {
  return database.transaction(async (db) => {
    const groups = await groupsOf(db, classId)
    const before = groups.find((each) => each.id === group)
    if (group !== null && !before) throw notFound('This group')
    // As the database compares names: it knows more that look alike, and would take one group for the other.
    const other = await db.one('SELECT 1 AS yes FROM class_group WHERE class_id = ? AND name = ? AND id <> ?', [
      classId,
      name,
      group ?? '',
    ])
    if (other) throw new Problem(422, 'name', 'Another group of this class has this name. Give it another one.')
    if (!before && groups.length >= mostGroups)
      throw new Problem(422, 'too-many', `A class has at most ${mostGroups} groups.`)
    const kept = group ?? newId()
    await db.run(
      'INSERT INTO class_group (id, class_id, name) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE name = VALUES(name)',
      [kept, classId, name],
    )
    await db.run('DELETE FROM class_group_member WHERE group_id = ?', [kept])
    if (members.length)
      await db.run(
        'INSERT INTO class_group_member (group_id, person_id) SELECT ?, person_id FROM enrolment WHERE class_id = ? AND person_id IN (?)',
        [kept, classId, members],
      )
    await recordLine(db, now, person.id, before ? 'group changed' : 'group made', kept, { name, members })
    const after = await groupsOf(db, classId)
    // A group may have windows and needs in any quiz: whoever came in or went has other times.
    const was = new Set(before?.members)
    const is = new Set(after.find((each) => each.id === kept)!.members)
    const moved = [...[...is].filter((each) => !was.has(each)), ...[...was].filter((each) => !is.has(each))]
    if (moved.length) await needsChanged(db, person, moved, now)
    return after
  })
}

/** Takes a group apart. Who was in it stays in the class. */
export async function dropGroup(
  database: Database,
  person: Person,
  classId: string,
  group: string,
  now: Instant,
): Promise<Group[]> {
  return database.transaction(async (db) => {
    const before = (await groupsOf(db, classId)).find((each) => each.id === group)
    if (!before) throw notFound('This group')
    await db.run('DELETE FROM class_group_member WHERE group_id = ?', [group])
    await db.run('DELETE FROM class_group WHERE id = ?', [group])
    await recordLine(db, now, person.id, 'group taken apart', group, before)
    await needsChanged(db, person, before.members, now)
    return groupsOf(db, classId)
  })
}

/** Gives a group what all of it needs; every quiz follows it, papers under way too. */
export async function setGroupAccommodation(
  database: Database,
  person: Person,
  classId: string,
  group: string,
  accommodation: Accommodation,
  now: Instant,
): Promise<Group[]> {
  return database.transaction(async (db) => {
    const found = (await groupsOf(db, classId)).find((each) => each.id === group)
    if (!found) throw notFound('This group')
    await db.run('UPDATE class_group SET accommodation = ? WHERE id = ?', [toJson(accommodation), group])
    await recordLine(db, now, person.id, 'accommodation set', group, accommodation)
    await needsChanged(db, person, found.members, now)
    return groupsOf(db, classId)
  })
}
