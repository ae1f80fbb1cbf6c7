import type { Rules } from '../../../core/quiz'
import { noPlaceFor } from '../../../core/rules'
import type { Db } from '../../database/database'

/** How many people have begun each of some quizzes. */
export async function placesTaken(db: Db, quizzes: readonly string[]): Promise<Map<string, number>> {
  const taken = new Map(quizzes.map((id) => [id, 0]))
  if (!quizzes.length) return taken
  const rows = await db.rows<{ quiz_id: string; people: number }>(
    'SELECT quiz_id, COUNT(DISTINCT student_id) AS people FROM attempt WHERE quiz_id IN (?) GROUP BY quiz_id',
    [[...quizzes]],
  )
  for (const row of rows) taken.set(row.quiz_id, Number(row.people))
  return taken
}

/** Whether somebody finds no place: only so many may sit it, all have begun, and they have not. @param begun how many attempts are theirs */
export async function isFull(
  db: Db,
  { id, quiz }: { id: string; quiz: { rules: Pick<Rules, 'places'> } },
  begun: number,
): Promise<boolean> {
  const { places } = quiz.rules
  // Nothing is counted where nothing is bounded.
  return places !== null && noPlaceFor(places, (await placesTaken(db, [id])).get(id)!, begun > 0)
}
