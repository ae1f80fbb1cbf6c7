import type { PersonRow } from '../../database/tables'
import { questionsUsed, withHeld, type Content } from '../../../core/quiz'
import { withoutQuestions } from '../../../core/quiz/copy'
import type { Instant } from '../../../core/kit/time'
import type { Db } from '../../database/database'
import type { Person } from '../../people/people'
import { hitsFor, type Hit } from '../bank/finding/hits'
import { seenAmong } from '../bank/finding/visible'
import { notFound } from '../problem'
import { filingOf, type Filing } from './filing'
import { heldNow } from './held'
import { loadQuiz, mayLook, mayTeach } from './quizzes'

/** What a quiz holds, for somebody who thinks of copying it or of taking from it. */
export interface QuizLook {
  id: string
  title: string
  ownerName: string
  may: 'read' | 'write'
  filing: Filing
  /** Without questions that the person may not see in the bank. */
  content: Content
  questions: Hit[]
  /** Questions that they may not see, and that would not come along. */
  hidden: number
}

/** What a quiz holds, as far as somebody may see its questions in the bank. Nothing of its rules, classes or sittings. */
export async function lookInto(db: Db, person: Person, id: string, now: Instant): Promise<QuizLook> {
  if (!(await mayLook(db, person, id))) throw notFound('This quiz')
  const row = await loadQuiz(db, id)
  const works = await mayTeach(db, person.id, id)
  // Who may only look is told what everybody who works in it may see, and they see themselves.
  const met = withHeld(row.quiz.content, await heldNow(db, row))
  const used = questionsUsed(met)
  const seen = await seenAmong(db, person, used, now)
  const gone = new Set(used.filter((question) => !seen.has(question)))
  const [owner, filing, questions] = await Promise.all([
    db.one<Pick<PersonRow, 'name'>>('SELECT p.name FROM quiz q JOIN person p ON p.id = q.owner_id WHERE q.id = ?', [
      id,
    ]),
    filingOf(db, id),
    hitsFor(
      db,
      person,
      used.filter((question) => seen.has(question)),
    ),
  ])
  return {
    id,
    title: row.quiz.content.title,
    ownerName: owner?.name ?? '',
    may: works ? 'write' : 'read',
    filing,
    content: withoutQuestions(met, gone),
    questions,
    hidden: gone.size,
  }
}
