import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'
import { loadAttempt } from './attempts'

/**
 * A teacher lets a student back into a paper that is sat in one go: they may come in from any device, whenever they do.
 * @throws Problem 404 for a paper of another quiz, 409 when it has ended
 */
export async function letIn(database: Database, person: Person, quiz: string, id: string, now: Instant): Promise<void> {
  const attempt = await loadAttempt(database, id)
  if (attempt.quiz !== quiz) throw notFound('This paper')
  await database.transaction(async (db) => {
    const done = await db.run(
      "UPDATE attempt SET seen_at = NULL, touched = touched + 1 WHERE id = ? AND state = 'open'",
      [id],
    )
    if (!done) throw new Problem(409, 'ended', 'This paper has ended.')
    await recordLine(db, now, person.id, 'let back in', id, {})
  })
}

/** The same for all papers of a quiz that are under way. @returns how many there are */
export async function letEverybodyIn(database: Database, person: Person, quiz: string, now: Instant): Promise<number> {
  return database.transaction(async (db) => {
    const papers = await db.run(
      "UPDATE attempt SET seen_at = NULL, touched = touched + 1 WHERE quiz_id = ? AND state = 'open'",
      [quiz],
    )
    await recordLine(db, now, person.id, 'everybody let back in', quiz, { papers })
    return papers
  })
}
