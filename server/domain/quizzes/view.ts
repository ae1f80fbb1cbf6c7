import type { ClassGroupRow, ClassRow, EditionRow, PersonRow, QuizTeacherRow, StimulusRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { listScales } from '../people/scales'
import type { SchoolScale } from '../../../core/marking'
import type { Check, Quiz, QuizState, Student } from '../../../core/quiz'
import type { Db } from '../../database/database'
import { hitsFor, type Hit } from '../bank/finding/hits'
import { allRows, questionsUsed } from '../../../core/quiz'
import { audienceOf, namedIn } from '../../../core/schedule'
import type { Person } from '../../people/people'
import { linkOf, type QuizLink } from '../links/make-link'
import { isAhead } from './ahead'
import { checksFor } from './checks'
import { addressOf, filingOf, type Filing } from './filing'
import { heldNow, heldReply, type HeldReply } from './held'
import { openingOf } from './openings'
import { currentState, loadQuiz, quizEndsNow } from './quizzes'
import { studentsAround } from '../classes/students'

/** Everything that Compose and Rules need of a quiz: one load, then edits. */
export interface QuizView {
  id: string
  revision: number
  quiz: Quiz
  state: QuizState
  /** Given to classes once more it would be another than the newest edition. */
  ahead: boolean
  edition: number | null
  questions: Hit[]
  /** What its pools with a condition hold now. */
  held: HeldReply
  /** Names of what its groups share. */
  stimuli: { id: string; name: string }[]
  classes: { id: string; name: string; students: number }[]
  /** Groups that may be chosen, with their class. */
  groups: { id: string; name: string }[]
  students: Student[]
  scales: SchoolScale[]
  /** The link of the quiz, once one was made. */
  link: QuizLink | null
  checks: Check[]
  /** Its owner first. */
  teachers: { id: string; name: string; owner: boolean; mayShare: boolean; may: 'read' | 'write' }[]
  filing: Filing
  /** When it opens by itself; null where it does not. */
  opensAt: Instant | null
  /** For its owner alone: the address by which others may look at it. */
  address: string | null
  now: Instant
}

/**
 * Everything the pages of one quiz show: document, questions, classes, checks, figures. Refuses an unknown quiz; the
 * right to teach it is asked at the route.
 */
export async function quizView(db: Db, person: Person, id: string, now: Instant): Promise<QuizView> {
  const row = await loadQuiz(db, id)
  const held = await heldNow(db, row)
  const meant = audienceOf(row.quiz.rules)
  const [questions, found, ahead, classes, checks, edition, teachers, roster, groups, scales, ends] = await Promise.all(
    [
      hitsFor(db, person, questionsUsed(row.quiz.content)),
      heldReply(db, person, held),
      isAhead(db, row, held),
      db.rows<Pick<ClassRow, 'id' | 'name'> & { students: number }>(
        'SELECT c.id, c.name, COUNT(e.person_id) AS students FROM class c LEFT JOIN enrolment e ON e.class_id = c.id WHERE c.school_id = ? AND (c.filed = 0 OR c.id IN (?)) AND (c.link_of IS NULL OR c.link_of = ?) GROUP BY c.id ORDER BY c.name',
        // One that is filed away is offered no more, and named where it is meant already.
        [person.school, ['-', ...meant.classes], id],
      ),
      checksFor(db, person, row, held, now),
      row.edition
        ? db.one<Pick<EditionRow, 'number'>>('SELECT number FROM edition WHERE id = ?', [row.edition])
        : undefined,
      db.rows<Pick<PersonRow, 'id' | 'name'> & Pick<QuizTeacherRow, 'may_share' | 'may'>>(
        "SELECT p.id, p.name, COALESCE(t.may_share, 1) AS may_share, COALESCE(t.may, 'write') AS may FROM person p LEFT JOIN quiz_teacher t ON t.quiz_id = ? AND t.person_id = p.id WHERE p.id = ? OR t.person_id IS NOT NULL ORDER BY p.id <> ?, p.name",
        [id, row.owner, row.owner],
      ),
      studentsAround(db, person.id, { ...meant, students: namedIn(row.quiz.rules) }),
      db.rows<Pick<ClassGroupRow, 'id' | 'name'> & { class_name: string }>(
        // Groups of the classes that the quiz is for, and of one's own.
        `SELECT g.id, g.name, c.name AS class_name FROM class_group g JOIN class c ON c.id = g.class_id
      WHERE c.school_id = ? AND (c.id IN (?) OR g.id IN (?) OR EXISTS (SELECT 1 FROM class_teacher t WHERE t.class_id = c.id AND t.person_id = ?))
      ORDER BY c.name, g.name`,
        [person.school, ['-', ...meant.classes], ['-', ...meant.groups], person.id],
      ),
      listScales(db, person.school),
      quizEndsNow(db, row),
    ],
  )
  const stimuli = [
    ...new Set(allRows(row.quiz.content).flatMap((each) => (each.type === 'stimulus' ? each.stimulus : []))),
  ]
  const names = stimuli.length
    ? await db.rows<Pick<StimulusRow, 'id' | 'name'>>(
        'SELECT id, name FROM stimulus WHERE id IN (?) AND school_id = ?',
        [stimuli, person.school],
      )
    : []
  return {
    id,
    revision: row.revision,
    quiz: row.quiz,
    state: currentState(row, ends, now),
    ahead,
    edition: edition?.number ?? null,
    questions,
    held: found,
    stimuli: names,
    classes: classes.map((each) => ({ ...each, students: Number(each.students) })),
    groups: groups.map(({ id: group, name, class_name: className }) => ({ id: group, name: `${name} (${className})` })),
    students: roster,
    scales,
    link: await linkOf(db, id),
    opensAt: await openingOf(db, id),
    checks,
    filing: await filingOf(db, id),
    address: row.owner === person.id ? await addressOf(db, id) : null,
    teachers: teachers.map((each) => ({
      id: each.id,
      name: each.name,
      owner: each.id === row.owner,
      mayShare: Boolean(each.may_share),
      may: each.may,
    })),
    now,
  }
}
