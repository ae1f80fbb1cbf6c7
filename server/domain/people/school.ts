import { z } from 'zod'
import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { recordLine } from '../record'
import { rosterChanged } from '../classes/roster-stamp'
import { schoolName, zone } from './first-start'

export const schoolChange = z.strictObject({ name: schoolName, zone })

/** Renames the school, or moves it to another zone. Instants stay as they are: they are read and written by other clocks. */
export async function changeSchool(
  database: Database,
  person: Person,
  change: z.infer<typeof schoolChange>,
  now: Instant,
): Promise<z.infer<typeof schoolChange>> {
  await database.transaction(async (db) => {
    await db.run('UPDATE school SET name = ?, zone = ? WHERE id = ?', [change.name, change.zone, person.school])
    await rosterChanged(db, person.school)
    await recordLine(db, now, person.id, 'school changed', person.school, change)
  })
  return change
}
