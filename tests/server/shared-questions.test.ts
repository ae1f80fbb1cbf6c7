/** Quizzes that share questions are named to each other while somebody can still sit them, and no longer. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { minute, plus } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { othersWith } from '../../server/domain/quizzes/shared-questions'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('shared_questions', day)).db
})
afterAll(() => db.close())

it('one that is over is not named, one that a sitting under way keeps open is', async () => {
  const [one, two] = [await openedQuiz(db, 'one'), await openedQuiz(db, 'two')]
  const maren = await person(db, 'p-maren')
  const named = async (at: number) => (await othersWith(db, maren, one, later(at))).map(({ id }) => id)
  expect(await named(1)).toContain(two)
  const { rules } = (await othersWith(db, maren, one, later(1))).find(({ id }) => id === two)!
  const closes = rules.windows[0]!.closes!
  const longAfter = 60 * 24 * 365
  expect(await named(longAfter)).not.toContain(two)
  const { attempt } = await startSitting(db, await person(db, 'p-nell-ashdown'), two, { device: 'd1' }, later(2))
  const far = plus(closes, 60 * 24 * 400 * minute)
  await db.run('UPDATE attempt SET hard_stop = ? WHERE id = ?', [far.slice(0, 23).replace('T', ' '), attempt])
  expect(await named(longAfter)).toContain(two)
})
