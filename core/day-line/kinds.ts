import { list } from '../kit/phrases'
import { studentOfClass } from '../schedule/assigned'
import { causesOf, spansOf, type LaneClass, type LaneStudent } from './day-line'

/** A kind of student that the rules of a quiz tell apart: all of one kind have the same times and attempts. */
export interface Kind {
  key: string
  name: string
  /** Who is of it, by name; empty for a kind of which nobody is there yet. */
  students: { id: string; name: string }[]
  /** Who stands for it: somebody of it, or somebody made up in this class. */
  who: { student: string } | { inClass: string }
}

/**
 * The kinds of student that the rules tell apart: of one class, of several, with times or attempts of their own, by the
 * link. Larger kinds of a class come before those who differ.
 * @param students all for whom the quiz is
 * @param classes those of the quiz
 * @param link the class that stands for everyone with the link, where there is a link
 */
export function kindsOf(students: readonly LaneStudent[], classes: readonly LaneClass[], link: string | null): Kind[] {
  const nameOf = new Map(classes.map(({ id, name }) => [id, name]))
  const kinds = new Map<string, Kind & { differs: boolean }>()
  for (const student of students) {
    const { id, name, schedule } = student
    // Whoever may still come by the link stands for a kind of their own.
    if (link !== null && id === studentOfClass(link).id) continue
    const causes = causesOf(student)
    const inQuiz = student.classes.filter((each) => nameOf.has(each)).sort()
    const key = JSON.stringify([inQuiz, causes, spansOf(schedule)])
    const known = kinds.get(key)
    if (known) {
      known.students.push({ id, name })
      continue
    }
    const where = list(inQuiz.map((each) => nameOf.get(each)!))
    kinds.set(key, {
      key,
      name: [where, ...causes].filter(Boolean).join(', '),
      students: [{ id, name }],
      who: { student: id },
      differs: causes.length > 0 || inQuiz.length > 1,
    })
  }
  const there = [...kinds.values()].sort(
    (a, b) => Number(a.differs) - Number(b.differs) || (a.name < b.name ? -1 : a.name > b.name ? 1 : 0),
  )
  const empty = classes.filter(({ id }) => id !== link && !students.some((each) => each.classes.includes(id)))
  return [
    ...there.map(({ differs: _differs, ...kind }) => kind),
    ...empty.map(({ id, name }): Kind => ({ key: id, name, students: [], who: { inClass: id } })),
    ...(link === null ? [] : [{ key: link, name: 'Everyone with the link', students: [], who: { inClass: link } }]),
  ]
}
