import { linkLeads } from '../rules/link'
import { noAccommodation } from '../quiz/accommodation'
import type { Rules, Student } from '../quiz/schema'
import type { Assigned } from '../release/ends'
import { scheduleFor } from './schedule'

/** A student for whom a quiz is meant, with what its rules mean for them. */
export interface AssignedStudent extends Assigned {
  id: string
  name: string
}

/** For whom a quiz is: classes, groups and students whom its windows name. */
export interface Audience {
  classes: string[]
  groups: string[]
  students: string[]
}
export function audienceOf({ windows }: Pick<Rules, 'windows'>): Audience {
  const of = (name: keyof Audience) => [...new Set(windows.flatMap((window) => window[name]))]
  return { classes: of('classes'), groups: of('groups'), students: of('students') }
}

/**
 * The classes by which a student waits for releases and gets them: those of theirs for which the quiz is; or all, where
 * it is for them by a group or by name.
 */
export function releaseClasses(rules: Pick<Rules, 'windows'>, classes: readonly string[]): string[] {
  const meant = new Set(rules.windows.flatMap((window) => window.classes))
  const inQuiz = classes.filter((each) => meant.has(each))
  return inQuiz.length ? inQuiz : [...classes]
}

/** A student of a class who is given nothing: what the rules mean for a class. */
export const studentOfClass = (id: string): Student => ({
  id: `class ${id}`,
  name: '',
  classes: [id],
  groups: [],
  accommodations: [noAccommodation],
})

/** Whoever may still come by the link of a quiz, as one student: there may be such, whoever has come. */
export function stillToCome({ link, windows }: Pick<Rules, 'link' | 'windows'>): Student[] {
  if (!link || !linkLeads({ link, windows })) return []
  return [{ ...studentOfClass(link.audience), name: 'Everyone with the link' }]
}

/** Students whom the rules name: their times may be theirs alone. */
export const namedIn = (rules: Pick<Rules, 'windows' | 'needs'>): string[] => [
  ...rules.windows.flatMap((window) => window.students),
  ...rules.needs.flatMap((need) => need.students),
]

/** Stands for a sort of student: those in the same classes and groups with the same accommodations; whoever is named is one. */
export const sortOf = (student: Student, named: ReadonlySet<string>): string =>
  named.has(student.id)
    ? student.id
    : JSON.stringify([
        [...student.classes].sort(),
        [...student.groups].sort(),
        student.accommodations,
        student.held ?? [],
      ])

/**
 * One student of each sort: those in the same classes and groups with the same accommodations have the same times in
 * every quiz, but for those whom a quiz names.
 */
export function oneOfEach(students: readonly Student[], named: ReadonlySet<string> = new Set()): Student[] {
  const sorts = new Map<string, Student>()
  for (const student of students) sorts.set(sortOf(student, named), student)
  return [...sorts.values()]
}

/** Those of the given students for whom a quiz is meant: whom a window is for. */
export function assignedTo(students: readonly Student[], rules: Rules): AssignedStudent[] {
  const { classes, groups, students: named } = audienceOf(rules)
  const [inClasses, inGroups, byName] = [new Set(classes), new Set(groups), new Set(named)]
  return students
    .filter(
      (student) =>
        student.classes.some((each) => inClasses.has(each)) ||
        student.groups.some((each) => inGroups.has(each)) ||
        byName.has(student.id),
    )
    .map((student) => ({
      id: student.id,
      name: student.name,
      classes: student.classes,
      schedule: scheduleFor(rules, student),
    }))
}
