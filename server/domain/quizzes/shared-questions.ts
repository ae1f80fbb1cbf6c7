import type { QuizRow, ViewedRow } from '../../database/tables'
import type { CheckContext } from '../../../core/quiz'
import { hasEnded, type Instant } from '../../../core/kit/time'
import { assignedTo as assignedAmong, audienceOf, stillToCome, type Audience } from '../../../core/schedule'
import { fromSql } from '../../database/codec'
import type { Db } from '../../database/database'
import { studentsMeant } from '../classes/students'
import type { Person } from '../../people/people'
import { endsNow, rosterOf } from './ends-now'
import { quizDocuments } from './known-documents'

/** So many are looked at, those that share most first; among so many that share anything, over or not. */
const mostOthers = 12
const mostSharing = 200

/** Quizzes of the school that somebody can still sit and that share questions with one; the title of one that the teacher may not look at is not told. */
export async function othersWith(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  quiz: string,
  now: Instant,
): Promise<NonNullable<CheckContext['others']>> {
  const roster = await rosterOf(db, person.school)
  const rows = await db.rows<
    Pick<QuizRow, 'id' | 'state' | 'revision' | 'changed_at'> & { shared: number; may_look: number }
  >(
    `SELECT q.id, q.state, q.revision, q.changed_at, COUNT(*) AS shared,
      (q.owner_id = ? OR q.sharing = 'school' OR EXISTS (SELECT 1 FROM quiz_teacher t WHERE t.quiz_id = q.id AND t.person_id = ?)) AS may_look
    FROM quiz_question own JOIN quiz_question o ON o.question_id = own.question_id AND o.quiz_id <> own.quiz_id
    JOIN quiz q ON q.id = o.quiz_id AND q.state = 'published' AND q.school_id = ?
    WHERE own.quiz_id = ? GROUP BY q.id ORDER BY shared DESC, q.id LIMIT ?`,
    [person.id, person.id, person.school, quiz, mostSharing],
  )
  const documents = await quizDocuments(db, rows)
  const asked = rows.flatMap((row) => {
    const document = documents.get(row.id)
    return document ? [{ row, quiz: document }] : []
  })
  const ends = await endsNow(db, asked, roster, now)
  // One that is over gives nothing away any more, and nothing is given away of it.
  const there = asked.filter(({ row }) => !hasEnded(ends.get(row.id)!.everyone, now)).slice(0, mostOthers)
  // All who are meant by any of them are read once: a school's quizzes are mostly for the same classes.
  const meant = there.map(({ quiz: { rules } }) => audienceOf(rules))
  const of = (name: keyof Audience) => [...new Set(meant.flatMap((each) => each[name]))]
  const students = await studentsMeant(db, { classes: of('classes'), groups: of('groups'), students: of('students') })
  return there.map(({ row: { id, shared, may_look: mayLook }, quiz: { content, rules } }) => ({
    id,
    title: mayLook ? content.title : 'a colleague’s quiz',
    shared: Number(shared),
    rules,
    students: assignedAmong([...students, ...stillToCome(rules)], rules),
  }))
}

/** Who has seen what of a quiz first, and when, and how many attempts each has begun. */
export async function seenOf(db: Db, quiz: string): Promise<Required<Pick<CheckContext, 'seen' | 'begun'>>> {
  const [seen, begun] = await Promise.all([
    db.rows<Pick<ViewedRow, 'facet' | 'at'> & { student_id: string; name: string }>(
      `SELECT a.student_id, p.name, v.facet, MIN(v.at) AS at FROM viewed v JOIN attempt a ON a.id = v.attempt_id
      JOIN person p ON p.id = a.student_id WHERE a.quiz_id = ? GROUP BY a.student_id, p.name, v.facet`,
      [quiz],
    ),
    db.rows<{ student_id: string; n: number }>(
      'SELECT student_id, COUNT(*) AS n FROM attempt WHERE quiz_id = ? GROUP BY student_id',
      [quiz],
    ),
  ])
  return {
    seen: seen.map((row) => ({ student: row.student_id, name: row.name, facet: row.facet, at: fromSql(row.at) })),
    begun: new Map(begun.map((row) => [row.student_id, Number(row.n)])),
  }
}
