import { questionsUsed } from '../../../core/quiz'
import { copyOf, withoutOwn, type CopyAs } from '../../../core/quiz/copy'
import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { copyFiling } from './filing'
import { seenAmong } from '../bank/finding/visible'
import { newId } from '../ids'
import { recordLine } from '../record'
import { notFound } from '../problem'
import { createQuiz, loadQuiz, mayLook, mayTeach } from './quizzes'

/**
 * A quiz once more, in draft and one's own, with how it is described: what the copier may not see in the bank does not come along, nor do
 * editions, sittings, co-teachers or what was released.
 * @returns its id, and how many questions were left out
 */
export async function copyQuiz(
  database: Database,
  person: Person,
  id: string,
  { term, ...as }: Omit<CopyAs, 'zone'> & { term?: string | undefined },
  now: Instant,
): Promise<{ id: string; leftOut: number }> {
  return database.transaction(async (db) => {
    if (!(await mayLook(db, person, id))) throw notFound('This quiz')
    const row = await loadQuiz(db, id)
    // Windows, classes and the password are of those who work in it.
    const quiz = (await mayTeach(db, person.id, id)) ? row.quiz : { ...row.quiz, rules: withoutOwn(row.quiz.rules) }
    const used = questionsUsed(quiz.content)
    const seen = await seenAmong(db, person, used, now)
    const gone = new Set(used.filter((question) => !seen.has(question)))
    const copy = copyOf(quiz, { ...as, zone: person.zone }, gone)
    const made = newId()
    await createQuiz(db, person, as.title, now, made, copy)
    await copyFiling(db, id, made)
    if (term !== undefined) await db.run('UPDATE quiz SET term = ? WHERE id = ?', [term, made])
    await recordLine(db, now, person.id, 'quiz copied', made, { from: id, leftOut: gone.size })
    return { id: made, leftOut: gone.size }
  })
}
