import type { PersonRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import type { Accommodation } from '../../../core/quiz'
import { fromSql } from '../../database/codec'
import type { Database } from '../../database/database'
import { readAccommodation } from '../../documents/read'
import type { Person } from '../../people/people'
import type { OwnField } from '../../../core/people'
import { linkRefusal } from './links'
import { listFields, valuesOf } from './own-fields'
import { quizzesOf, type Counting } from '../sittings/my-quizzes'

export interface StudentQuiz {
  id: string
  title: string
  /** What they can do now, in the words that they read. */
  sentence: string
  may: 'start' | 'continue' | 'wait' | 'done'
  attempts: number
  /** The counting grade, whether it is shown to them yet or not: also as its scale tells it. */
  grade: Counting | null
  shown: boolean
}

export interface StudentPage {
  id: string
  name: string
  email: string | null
  waiting: boolean
  /** Why the teacher cannot make a link for them, in a sentence; null where they can. */
  noLink: string | null
  accommodation: Accommodation
  reason: string
  classes: { id: string; name: string; since: Instant | null; mine: boolean }[]
  left: { id: string; name: string; leftAt: Instant }[]
  /** Fields of the school's own, with what is kept in them. */
  fields: OwnField[]
  values: Record<string, string>
  groups: { name: string; className: string; accommodation: Accommodation }[]
  quizzes: StudentQuiz[]
}

/** A student as a teacher of theirs sees them: what they can do now is what they themselves are told, by the same code. */
export async function studentPage(database: Database, person: Person, id: string, now: Instant): Promise<StudentPage> {
  const [row, classes, left, groups, fields, values] = await Promise.all([
    database.one<Pick<PersonRow, 'name' | 'email' | 'accommodation' | 'need_reason'> & { waiting: number }>(
      "SELECT name, email, accommodation, need_reason, password_hash = '' AS waiting FROM person WHERE id = ?",
      [id],
    ),
    database.rows<{ id: string; name: string; since: string | null; mine: number }>(
      `SELECT c.id, c.name, e.since, EXISTS (SELECT 1 FROM class_teacher t WHERE t.class_id = c.id AND t.person_id = ?) AS mine
      FROM enrolment e JOIN class c ON c.id = e.class_id WHERE e.person_id = ? ORDER BY c.filed, c.name`,
      [person.id, id],
    ),
    database.rows<{ id: string; name: string; left_at: string }>(
      `SELECT c.id, c.name, l.left_at FROM left_class l JOIN class c ON c.id = l.class_id
      JOIN class_teacher t ON t.class_id = c.id AND t.person_id = ? WHERE l.person_id = ? ORDER BY l.left_at DESC`,
      [person.id, id],
    ),
    database.rows<{ name: string; class_name: string; accommodation: string | null }>(
      `SELECT g.name, c.name AS class_name, g.accommodation FROM class_group_member m JOIN class_group g ON g.id = m.group_id
      JOIN class c ON c.id = g.class_id WHERE m.person_id = ? ORDER BY c.name, g.name`,
      [id],
    ),
    listFields(database, person.school),
    valuesOf(database, [id]),
  ])
  const { listed } = await quizzesOf(database, { id, zone: person.zone }, now)
  const works = new Set(
    (
      await database.rows<{ id: string }>(
        "SELECT id FROM quiz WHERE owner_id = ? UNION SELECT quiz_id FROM quiz_teacher WHERE person_id = ? AND may = 'write'",
        [person.id, person.id],
      )
    ).map((quiz) => quiz.id),
  )
  return {
    id,
    name: row!.name,
    email: row!.email,
    waiting: Boolean(row!.waiting),
    noLink: await linkRefusal(database, person, id),
    accommodation: readAccommodation(row!.accommodation),
    reason: row!.need_reason,
    classes: classes.map(({ since, mine, ...each }) => ({
      ...each,
      since: since && fromSql(since),
      mine: Boolean(mine),
    })),
    fields,
    values: values.get(id) ?? {},
    left: left.map(({ left_at: at, ...each }) => ({ ...each, leftAt: fromSql(at) })),
    groups: groups.map((each) => ({
      name: each.name,
      className: each.class_name,
      accommodation: readAccommodation(each.accommodation),
    })),
    // Of quizzes of other teachers nothing is told.
    quizzes: listed
      .filter(({ quiz }) => works.has(quiz.id))
      .map(({ quiz, counting }) => ({
        id: quiz.id,
        title: quiz.title,
        ...(quiz.anonymous
          ? { sentence: 'Papers of it are seen without names.', may: 'wait' as const, attempts: 0, grade: null }
          : { sentence: quiz.sentence, may: quiz.may, attempts: quiz.attempts.length, grade: counting }),
        shown: !quiz.anonymous && quiz.grade !== null,
      })),
  }
}
