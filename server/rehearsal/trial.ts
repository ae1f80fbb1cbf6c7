import { z } from 'zod'
import { factsFrom, type Facts } from '../../core/figures'
import { seededRandom } from '../../core/kit/random'
import { withHeld, questionsUsed } from '../../core/quiz'
import { assignedTo as assignedAmong, stillToCome } from '../../core/schedule'
import { sitOnce, sumOf, type TrialSum } from '../../core/trial'
import type { Database } from '../database/database'
import { hitsFor } from '../domain/bank/finding/hits'
import { assignedTo } from '../domain/classes/assigned'
import { Problem } from '../domain/problem'
import { drawSecret } from '../domain/quizzes/edition'
import { heldNow } from '../domain/quizzes/held'
import { loadQuiz } from '../domain/quizzes/quizzes'
import type { Person } from '../people/people'
import { editionPlayed } from './stand'

/** Some of the sittings of a trial run: whoever asks for all asks for them some at a time. */
export const trialPart = z.strictObject({
  content: z.enum(['written', 'open']),
  from: z.int().min(0).max(100_000),
  count: z.int().min(1, 'Ask for at least one sitting.').max(250, 'Ask for at most 250 sittings at once.'),
  students: z.strictObject({
    mean: z.number().min(-5).max(5),
    deviation: z.number().min(0).max(3),
    lose: z.number().min(0).max(1),
  }),
})
export type TrialPart = z.infer<typeof trialPart>

/**
 * Simulated students sit the quiz, each with the times of a student for whom it is, in turn. The same each time for the
 * same quiz; nothing of it is kept.
 */
export async function trialRun(
  database: Database,
  teacher: Person,
  quizId: string,
  { content, from, count, students }: TrialPart,
): Promise<TrialSum> {
  const secret = await drawSecret(database, quizId)
  const row = await loadQuiz(database, quizId)
  const { edition } = await editionPlayed(database, teacher, row, content, secret)
  const { rules } = row.quiz
  const assigned = [...(await assignedTo(database, rules)), ...assignedAmong(stillToCome(rules), rules)]
  if (!assigned.length)
    throw new Problem(422, 'nobody', 'Nobody sits this quiz yet. Give it to a class in Rules, then try it.')
  const held = await heldNow(database, row)
  const used = [...new Set([...questionsUsed(withHeld(row.quiz.content, held)), ...Object.keys(edition.questions)])]
  const facts: Facts = new Map((await hitsFor(database, teacher, used)).map((hit) => [hit.id, factsFrom(hit)]))
  return sumOf(
    Array.from({ length: count }, (_, i) => {
      const place = from + i
      const name = `trial ${place}`
      const random = seededRandom(edition.secret, [name, JSON.stringify(students)])
      return sitOnce({ edition, rules, facts }, assigned[place % assigned.length]!.schedule, name, students, random)
    }),
  )
}
