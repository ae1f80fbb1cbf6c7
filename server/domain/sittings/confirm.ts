import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { noteConfirmed } from './notices'
import { standing } from './start'

/**
 * A student says that they are done with a quiz, or takes that back.
 * @throws Problem 404 where they do not see it; 409 where being done is something else
 */
export async function confirmDone(
  database: Database,
  person: Person,
  quiz: string,
  done: boolean,
  now: Instant,
): Promise<void> {
  const { row } = await standing(database, person, quiz, now)
  if (row.quiz.rules.done !== 'confirmed')
    throw new Problem(409, 'done', 'Being done with this quiz is not for you to say: its page tells when you are.')
  await noteConfirmed(database, quiz, person.id, done, now)
}
