import type { Instant } from '../../../core/kit/time'
import { applyEdit, editTo } from '../../../core/quiz'
import { closedFor, isFor, type ForWhom } from '../../../core/quiz/more-time'
import { whatClosingDoes, type Closing } from '../../../core/schedule'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { assignedTo } from '../classes/assigned'
import { studentsByIds } from '../classes/students'
import { grouped } from '../grouped'
import { newId } from '../ids'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { loadAttempts } from '../sittings/attempts'
import { settle } from '../sittings/end'
import { satOf } from '../sittings/sat'
import { closeOpenSittings } from '../sittings/timing'
import { keepChange } from './edits'
import { loadQuiz } from './quizzes'
import { guardQuiz } from './start-guard'

const onlyOpen = () => new Problem(409, 'state', 'Only a quiz that is open can be closed.')

/** What closing a quiz at an instant would do to whom; nothing is done. */
export async function lookAtClosing(database: Database, quizId: string, whom: ForWhom, now: Instant): Promise<Closing> {
  await settle(database, { quiz: quizId }, now)
  const row = await loadQuiz(database, quizId)
  if (row.stored !== 'published') throw onlyOpen()
  const { rules } = row.quiz
  const [students, attempts] = await Promise.all([
    assignedTo(database, rules),
    loadAttempts(database, { quizzes: [quizId] }),
  ])
  const own = grouped(attempts, (attempt) => attempt.student)
  return whatClosingDoes(
    rules,
    students
      .filter((student) => isFor(whom, student))
      .map((student) => {
        const theirs = own.get(student.id) ?? []
        return {
          ...student,
          ...(rules.anonymous ? { name: 'Somebody' } : {}),
          sat: satOf(theirs, rules).sat,
          running: theirs.find((attempt) => attempt.state === 'open')?.limits ?? null,
        }
      }),
    now,
  )
}

/**
 * Close now: the one act that shortens sittings under way. Windows end, for everybody, a class or some students, and what
 * is there of theirs is handed in, dated at that instant (semantics §5).
 */
export async function closeNow(
  database: Database,
  person: Person,
  quizId: string,
  whom: ForWhom,
  now: Instant,
): Promise<{ ended: number }> {
  return database.transaction(async (db) => {
    await db.one('SELECT id FROM quiz WHERE id = ? FOR UPDATE', [quizId])
    const row = await loadQuiz(db, quizId)
    if (row.stored !== 'published') throw onlyOpen()
    const meant = (await assignedTo(db, row.quiz.rules)).filter((student) => isFor(whom, student))
    // Of papers without names nobody is closed out alone: it would tell whose one is.
    if (row.quiz.rules.anonymous && !('everybody' in whom))
      throw new Problem(409, 'anonymous', 'Papers have no names here: it is closed for everybody, or for nobody.')
    const ids = meant.map((student) => student.id)
    const named = 'students' in whom ? [...(await studentsByIds(db, ids)).values()] : []
    const windows = closedFor(row.quiz.rules, whom, named, now, newId)
    const edit = editTo(row.quiz, { ...row.quiz, rules: { ...row.quiz.rules, windows } })
    if (edit) await keepChange(db, person, row, applyEdit(row.quiz, edit).quiz, `close:${row.revision + 1}`, edit, now)
    await guardQuiz(db, quizId)
    const ended = await closeOpenSittings(db, quizId, now, 'everybody' in whom ? null : ids)
    await recordLine(db, now, person.id, 'quiz closed now', quizId, { ended, ...whom })
    return { ended }
  })
}
