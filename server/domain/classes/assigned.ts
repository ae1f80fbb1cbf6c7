import type { Rules } from '../../../core/quiz'
import { assignedTo as assignedAmong, classesOf, type AssignedStudent } from '../../../core/schedule'
import type { Db } from '../../database/database'
import { studentsOfClasses } from './students'

/** Everybody for whom a quiz is meant, by name. */
export async function assignedTo(db: Db, rules: Rules): Promise<AssignedStudent[]> {
  return assignedAmong(await studentsOfClasses(db, classesOf(rules)), rules)
}
