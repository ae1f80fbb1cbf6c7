import type { ClassRow, EnrolmentRow, PersonRow, QuizRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { namesakes, needWords } from '../../../core/people'
import { languageName } from '../../../core/question/language-name'
import type { Accommodation, Quiz, QuizState, Window } from '../../../core/quiz'
import { audienceOf, maySit, scheduleFor, takenUntil } from '../../../core/schedule'
import { fromSql } from '../../database/codec'
import type { Db } from '../../database/database'
import { readAccommodation } from '../../documents/read'
import type { Person } from '../../people/people'
import { grouped } from '../grouped'
import { endsNow, rosterOf } from '../quizzes/ends-now'
import { quizDocuments } from '../quizzes/known-documents'
import { currentState } from '../quizzes/quizzes'
import { loadAttempts, type Attempt } from '../sittings/attempts'
import { satOf } from '../sittings/sat'
import { claimsOf, type Claim } from './claims'
import { groupsOf, type Group } from './groups'
import type { JoinCode } from './join-codes'
import { studentsOfClasses } from './students'
import { mayInClass, teachersOf, type ClassTeacher, type MayInClass } from './teachers'

/** So many quizzes of a class stand in its register, those that end last first. */
const mostQuizzes = 10
const mostLeft = 200

export interface RegisterQuiz {
  id: string
  title: string
  state: QuizState
  opens: Instant | null
  closes: Instant | null
}

/** How one student stands with one quiz. */
export interface Mark {
  /** The counting grade in percent, as it is shown; null before there is one. */
  percent: string | null
  passed: boolean | null
  sitting: boolean
}

export interface RegisterStudent {
  id: string
  name: string
  email: string | null
  /** Somebody else of the class is called the same. */
  namesake: boolean
  /** They have no password yet: nobody has come in as them. */
  waiting: boolean
  /** How they came in without a link; null where they did not, and for those who only help in the class. */
  claim: Claim | null
  since: Instant | null
  accommodation: Accommodation
  /** What is theirs in one quiz alone: a window, or something given for it. */
  inQuizzes: { words: string; title: string }[]
  /** Why, for those who teach the class. */
  reason: string
  /** Names of their other classes in which the teacher has a part. */
  also: string[]
  /** What they can do now, of the quizzes that are listed. */
  now: { quiz: string; may: 'start' | 'sitting' } | null
  marks: Record<string, Mark>
}

export interface Register {
  id: string
  name: string
  term: { id: string; name: string } | null
  filed: boolean
  /** All its quizzes are held back. */
  held: boolean
  may: MayInClass
  teachers: ClassTeacher[]
  code: JoinCode | null
  students: RegisterStudent[]
  left: { id: string; name: string; leftAt: Instant }[]
  groups: Group[]
  quizzes: RegisterQuiz[]
}

type StudentRow = Pick<PersonRow, 'id' | 'name' | 'email' | 'accommodation' | 'need_reason'> &
  Pick<EnrolmentRow, 'since'> & { waiting: number }

/** The register of a class, for a teacher who has a part in it (the route asks). */
export async function register(db: Db, person: Person, classId: string, now: Instant): Promise<Register> {
  const [head, may, rows, groups, left, also] = await Promise.all([
    db.one<
      Pick<ClassRow, 'name' | 'filed' | 'held_at' | 'join_code' | 'join_until' | 'term_id'> & { term: string | null }
    >(
      'SELECT c.name, c.filed, c.held_at, c.join_code, c.join_until, c.term_id, t.name AS term FROM class c LEFT JOIN term t ON t.id = c.term_id WHERE c.id = ?',
      [classId],
    ),
    mayInClass(db, person.id, classId),
    db.rows<StudentRow>(
      `SELECT p.id, p.name, p.email, p.accommodation, p.need_reason, e.since, p.password_hash = '' AS waiting
      FROM enrolment e JOIN person p ON p.id = e.person_id WHERE e.class_id = ? ORDER BY p.name, p.id`,
      [classId],
    ),
    groupsOf(db, classId),
    db.rows<{ id: string; name: string; left_at: string }>(
      'SELECT p.id, p.name, l.left_at FROM left_class l JOIN person p ON p.id = l.person_id WHERE l.class_id = ? ORDER BY l.left_at DESC LIMIT ?',
      [classId, mostLeft],
    ),
    db.rows<{ person_id: string; name: string }>(
      `SELECT o.person_id, c.name FROM enrolment e JOIN enrolment o ON o.person_id = e.person_id AND o.class_id <> e.class_id
      JOIN class_teacher k ON k.class_id = o.class_id AND k.person_id = ? JOIN class c ON c.id = o.class_id WHERE e.class_id = ? ORDER BY c.name`,
      [person.id, classId],
    ),
  ])
  const claims = may === 'teach' ? await claimsOf(db, classId) : new Map<string, Claim>()
  const quizzes = await quizzesOf(db, person, classId, now)
  const stand = await standings(db, classId, quizzes, now, person.zone)
  const differs = inQuizzesAlone(quizzes)
  const alsoOf = grouped(also, (row) => row.person_id)
  const same = namesakes(rows)
  return {
    id: classId,
    name: head!.name,
    term: head!.term_id === null ? null : { id: head!.term_id, name: head!.term! },
    filed: Boolean(head!.filed),
    held: head!.held_at !== null,
    may: may!,
    teachers: await teachersOf(db, classId),
    code: codeOf(head!, now),
    students: rows.map((row) => ({
      id: row.id,
      name: row.name,
      email: row.email,
      namesake: same.has(row.id),
      waiting: Boolean(row.waiting),
      claim: claims.get(row.id) ?? null,
      since: row.since && fromSql(row.since),
      accommodation: readAccommodation(row.accommodation),
      inQuizzes: differs.get(row.id) ?? [],
      reason: may === 'teach' ? row.need_reason : '',
      also: (alsoOf.get(row.id) ?? []).map(({ name }) => name),
      ...(stand.get(row.id) ?? { now: null, marks: {} }),
    })),
    left: left.map(({ id, name, left_at: at }) => ({ id, name, leftAt: fromSql(at) })),
    groups,
    quizzes: quizzes.map(({ listed }) => listed),
  }
}

function codeOf({ join_code: code, join_until: until }: Pick<ClassRow, 'join_code' | 'join_until'>, now: Instant) {
  return code !== null && until !== null && fromSql(until) > now ? { code, until: fromSql(until) } : null
}

/** What quizzes that are not over give to students by name, by student. */
function inQuizzesAlone(quizzes: readonly QuizOfClass[]): Map<string, RegisterStudent['inQuizzes']> {
  const known = new Map<string, RegisterStudent['inQuizzes']>()
  const note = (student: string, words: string, title: string) =>
    known.set(student, [...(known.get(student) ?? []), { words, title }])
  for (const { listed, quiz } of quizzes) {
    if (listed.state === 'closed') continue
    const own = new Set(quiz.rules.windows.flatMap((window) => window.students))
    for (const student of own) note(student, 'a window of their own', listed.title)
    for (const need of quiz.rules.needs)
      for (const student of need.students)
        note(student, needWords(need, languageName).join(', ') || 'nothing else', listed.title)
  }
  return known
}

type QuizOfClass = Awaited<ReturnType<typeof quizzesOf>>[number]

/** Whether a window is for the class, a group of it or somebody in it. */
async function concerning(
  db: Db,
  classId: string,
  known: readonly { quiz: Quiz }[],
): Promise<(window: Window) => boolean> {
  const named = known.flatMap(({ quiz }) => audienceOf(quiz.rules).students)
  const rows = await db.rows<{ id: string }>(
    `SELECT id FROM class_group WHERE class_id = ?
    UNION ALL SELECT person_id FROM enrolment WHERE class_id = ? AND person_id IN (?)`,
    [classId, classId, ['-', ...named]],
  )
  const inside = new Set(rows.map((row) => row.id))
  return ({ classes, groups, students }) =>
    classes.includes(classId) || [...groups, ...students].some((each) => inside.has(each))
}

/** Quizzes of the class in which the teacher works, with their state now. */
async function quizzesOf(db: Db, person: Person, classId: string, now: Instant) {
  const rows = await db.rows<Pick<QuizRow, 'id' | 'state' | 'revision' | 'changed_at'>>(
    `SELECT q.id, q.state, q.revision, q.changed_at FROM (SELECT quiz_id FROM quiz_class WHERE class_id = ?
      UNION SELECT g.quiz_id FROM quiz_group g JOIN class_group k ON k.id = g.group_id WHERE k.class_id = ?
      UNION SELECT s.quiz_id FROM quiz_student s JOIN enrolment e ON e.person_id = s.person_id WHERE e.class_id = ?) c
    JOIN quiz q ON q.id = c.quiz_id WHERE q.state IN ('draft', 'published') AND (q.owner_id = ? OR EXISTS
      (SELECT 1 FROM quiz_teacher t WHERE t.quiz_id = q.id AND t.person_id = ? AND t.may = 'write'))
    ORDER BY q.changed_at DESC LIMIT 200`,
    [classId, classId, classId, person.id, person.id],
  )
  const [documents, roster] = await Promise.all([quizDocuments(db, rows), rosterOf(db, person.school)])
  const known = rows.flatMap((row) => {
    const quiz = documents.get(row.id)
    return quiz ? [{ row, quiz }] : []
  })
  const [ends, concerns] = [await endsNow(db, known, roster, now), await concerning(db, classId, known)]
  const listed = known.map(({ row, quiz }) => {
    const windows = quiz.rules.windows.filter(concerns)
    const closes = windows.map((window) => takenUntil(window, quiz.rules))
    return {
      quiz,
      listed: {
        id: row.id,
        title: quiz.content.title,
        state: currentState({ stored: row.state, quiz }, ends.get(row.id)!, now),
        opens: windows.map((window) => window.opens).sort()[0] ?? null,
        closes: closes.includes(null) ? null : (closes.sort().at(-1) ?? null),
      } satisfies RegisterQuiz,
    }
  })
  const last = ({ listed: { closes } }: (typeof listed)[number]) => closes ?? '9'
  return listed.sort((a, b) => (last(a) < last(b) ? 1 : -1)).slice(0, mostQuizzes)
}

/** What each student can do now and has reached, by student. */
async function standings(
  db: Db,
  classId: string,
  all: readonly QuizOfClass[],
  now: Instant,
  zone: string,
): Promise<Map<string, Pick<RegisterStudent, 'now' | 'marks'>>> {
  // Of quizzes without names nothing is told of anybody.
  const quizzes = all.filter(({ quiz }) => !quiz.rules.anonymous)
  const [students, attempts] = await Promise.all([
    studentsOfClasses(db, [classId]),
    loadAttempts(db, { quizzes: quizzes.map(({ listed }) => listed.id), classId }),
  ])
  const byBoth = grouped(attempts, ({ student, quiz }) => `${student} ${quiz}`)
  return new Map(
    students.map((student) => {
      const each = quizzes.map((quiz) => standing(quiz, byBoth.get(`${student.id} ${quiz.listed.id}`) ?? [], now))
      const sitting = each.find((one) => one.mark?.sitting)
      const start =
        sitting ??
        each.find(({ quiz: { listed, quiz }, sat }) => {
          // Only of what is open is it asked, and no further than the first.
          return listed.state === 'open' && maySit('open', scheduleFor(quiz.rules, student), sat, now, zone).may
        })
      return [
        student.id,
        {
          now: start ? { quiz: start.quiz.listed.id, may: sitting ? 'sitting' : 'start' } : null,
          marks: Object.fromEntries(each.flatMap(({ quiz, mark }) => (mark ? [[quiz.listed.id, mark]] : []))),
        },
      ]
    }),
  )
}

function standing(quiz: QuizOfClass, own: readonly Attempt[], now: Instant) {
  const { sat, grade } = satOf(own, quiz.quiz.rules)
  // One that is past its hard stop has ended, whenever it is ended.
  const sitting = own.some(
    ({ state, limits }) => state === 'open' && (limits.hardStop === null || limits.hardStop >= now),
  )
  const mark: Mark | null = own.length ? { percent: grade.percent, passed: grade.passed, sitting } : null
  return { quiz, sat, mark }
}
