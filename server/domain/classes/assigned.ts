import type { Rules } from '../../../core/quiz'
import { assignedTo as assignedAmong, audienceOf, type AssignedStudent } from '../../../core/schedule'
import type { Db } from '../../database/database'
import { studentsMeant } from './students'

/** Everybody for whom a quiz is meant, by name. */
export async function assignedTo(db: Db, rules: Rules): Promise<AssignedStudent[]> {
  return assignedAmong(await studentsMeant(db, audienceOf(rules)), rules)
}
