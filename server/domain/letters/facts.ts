import type { PersonRow, SchoolRow } from '../../database/tables'
import type { LetterFacts } from '../../../core/notices'
import type { Rules } from '../../../core/quiz'
import type { NoticeName } from '../../../core/rules'
import type { Schedule } from '../../../core/schedule'
import type { Database, Db } from '../../database/database'
import { ownAddress } from '../../own-address'
import { receiptFor } from '../reviews/receipt'
import type { Attempt } from '../sittings/attempts'
import type { LoadedQuiz } from '../quizzes/quizzes'

/** What letters of one quiz have in common. */
export interface LetterPlace {
  school: string
  zone: string
  /** Where Thistle is reached; empty where nobody has opened a quiz there yet. */
  site: string
}

/** A school as its letters name it. */
export async function placeOf(db: Db, school: string): Promise<LetterPlace> {
  const row = await db.one<Pick<SchoolRow, 'name' | 'zone'>>('SELECT name, zone FROM school WHERE id = ?', [school])
  return { school: row?.name ?? '', zone: row?.zone ?? 'UTC', site: ownAddress() }
}

export type Receiver = Pick<PersonRow, 'id' | 'name' | 'email' | 'reminders' | 'reminder_word'>

/** Everything that a letter says. @param more what its sort adds */
export const factsOf = (
  { id, quiz }: Pick<LoadedQuiz, 'id' | 'quiz'>,
  place: LetterPlace,
  to: Pick<Receiver, 'name' | 'reminder_word'>,
  schedule: Schedule,
  name: NoticeName,
  more: Partial<LetterFacts>,
): LetterFacts => ({
  ...place,
  name,
  title: quiz.content.title,
  student: to.name,
  schedule,
  words: quiz.rules.notices[name].words,
  quiz: id,
  attempt: null,
  handedIn: null,
  facets: [],
  grade: null,
  at: null,
  stop: place.site && to.reminder_word ? `${place.site}/reminders/${to.reminder_word}` : '',
  ...more,
})

/** What a receipt says of a paper; never its key. */
export async function handedInOf(
  database: Database,
  attempt: Attempt,
  quiz: { content: LoadedQuiz['quiz']['content']; rules: Rules },
): Promise<LetterFacts['handedIn']> {
  const receipt = await receiptFor(database, attempt, quiz)
  return receipt && { at: receipt.at, answered: receipt.answered, questions: receipt.questions, code: receipt.code }
}
