import type { Rules, Student } from '../quiz/schema'
import type { Assigned } from '../release/ends'
import { scheduleFor } from './schedule'

/** A student for whom a quiz is meant, with what its rules mean for them. */
export interface AssignedStudent extends Assigned {
  id: string
  name: string
}

/** Classes of the rules' windows. */
export const classesOf = (rules: Pick<Rules, 'windows'>): string[] => [
  ...new Set(rules.windows.flatMap((window) => window.classes)),
]

/** One student of each sort: those in the same classes with the same accommodations have the same times in every quiz. */
export function oneOfEach(students: readonly Student[]): Student[] {
  const sorts = new Map<string, Student>()
  for (const student of students)
    sorts.set(JSON.stringify([[...student.classes].sort(), student.accommodations]), student)
  return [...sorts.values()]
}

/** Those of the given students for whom a quiz is meant: who are in the classes of its windows. */
export function assignedTo(students: readonly Student[], rules: Rules): AssignedStudent[] {
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
