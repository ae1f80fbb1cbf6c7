import type { Rules } from '../../../core/quiz'
import type { Assigned } from '../../../core/release'
import { scheduleFor } from '../../../core/schedule'
import type { Db } from '../../database/database'
import { studentsOfClasses } from './students'

/** A student for whom a quiz is meant, with what its rules mean for them. */
export interface AssignedStudent extends Assigned { id: string, name: string }

/** Everybody in the classes of the rules' windows, by name. */
export async function assignedTo(db: Db, rules: Rules): Promise<AssignedStudent[]> {
  const classes = [...new Set(rules.windows.flatMap((window) => window.classes))]
  return (await studentsOfClasses(db, classes)).map((student) => ({ id: student.id, name: student.name, classes: student.classes, schedule: scheduleFor(rules, student) }))
}
