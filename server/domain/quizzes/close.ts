import type { Instant } from '../../../core/kit/time'
import { applyEdit, editTo, type Window } from '../../../core/quiz'
import { closesNow, whatClosingDoes, type Closing } from '../../../core/schedule'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { assignedTo } from '../classes/assigned'
import { grouped } from '../grouped'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { loadAttempts } from '../sittings/attempts'
import { settle } from '../sittings/end'
import { satOf } from '../sittings/sat'
import { closeOpenSittings } from '../sittings/timing'
import { keepChange } from './edits'
import { loadQuiz } from './quizzes'

const onlyOpen = () => new Problem(409, 'state', 'Only a quiz that is open can be closed.')

/** What closing a quiz at an instant would do to whom; nothing is done. */
export async function lookAtClosing(database: Database, quizId: string, now: Instant): Promise<Closing> {
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
    students.map((student) => {
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
 * Close now: the one act that shortens sittings under way. Windows end, for everybody, and what is there is handed in,
 * dated at that instant (semantics §5).
 */
export async function closeNow(
  database: Database,
  person: Person,
  quizId: string,
  now: Instant,
): Promise<{ ended: number }> {
  return database.transaction(async (db) => {
    await db.one('SELECT id FROM quiz WHERE id = ? FOR UPDATE', [quizId])
    const row = await loadQuiz(db, quizId)
    if (row.stored !== 'published') throw onlyOpen()
    const windows = row.quiz.rules.windows.map((window: Window) => closesNow(window, now))
    const edit = editTo(row.quiz, { ...row.quiz, rules: { ...row.quiz.rules, windows } })
    if (edit) await keepChange(db, person, row, applyEdit(row.quiz, edit).quiz, `close:${row.revision + 1}`, edit, now)
    const ended = await closeOpenSittings(db, quizId, now)
    await recordLine(db, now, person.id, 'quiz closed now', quizId, { ended })
    return { ended }
  })
}
