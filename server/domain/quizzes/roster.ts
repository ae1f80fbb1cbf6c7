import type { Rules, Student } from '../../../core/quiz'
import type { Assigned } from '../../../core/release'
import { scheduleFor } from '../../../core/schedule'
import type { Db } from '../../database/database'
import { studentsOfClasses } from './students'

/** A student for whom a quiz is meant, with what its rules mean for them. */
export interface AssignedStudent extends Assigned {
  id: string
  name: string
}

/** Classes of the rules' windows. */
export const classesOf = (rules: Rules): string[] => [...new Set(rules.windows.flatMap((window) => window.classes))]

/** Those of the given students who are in the classes of the rules' windows. */
export function assignedAmong(students: readonly Student[], rules: Rules): AssignedStudent[] {
  const classes = new Set(classesOf(rules))
  return students
    .filter((student) => student.classes.some((name) => classes.has(name)))
    .map((student) => ({
      id: student.id,
      name: student.name,
      classes: student.classes,
      schedule: scheduleFor(rules, student),
    }))
}

/** Everybody in the classes of the rules' windows, by name. */
export async function assignedTo(db: Db, rules: Rules): Promise<AssignedStudent[]> {
  return assignedAmong(await studentsOfClasses(db, classesOf(rules)), rules)
}
