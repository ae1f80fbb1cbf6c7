/** Closing at once for a class or a student: their papers are handed in, and nobody else's. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Database } from '../../server/database/database'
import { closeNow, lookAtClosing } from '../../server/domain/quizzes/close'
import { copyQuiz } from '../../server/domain/quizzes/copy'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { quizRecord } from '../../server/domain/quizzes/record-page'
import { loadAttempt } from '../../server/domain/sittings/attempts'
import { settle } from '../../server/domain/sittings/end'
import { startSitting } from '../../server/domain/sittings/start'
import type { Person } from '../../server/people/people'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz, threeHours } from '../support/quiz'

let db: Database
let maren: Person
beforeAll(async () => {
  db = (await freshDatabase('closing', day)).db
  maren = await person(db, 'p-maren')
})
afterAll(() => db.close())

const [nell, petra, kit] = ['p-nell-ashdown', 'p-petra-lund', 'p-kit-sorrel']
const begin = async (quiz: string, who: string, at = 1) =>
  (await startSitting(db, await person(db, who), quiz, { device: 'd1' }, later(at))).attempt
const stateOf = async (attempt: string, at: number) => {
  await settle(db, { attempt }, later(at))
  const { state, endedBy } = await loadAttempt(db, attempt)
  return state === 'open' ? 'open' : `${state} by ${endedBy}`
}
const both = (id: string) => openedQuiz(db, id, { windows: [threeHours('c-tuesday', 'c-saturday')] })

it('for a class hands in what its students have, and lets the other go on', async () => {
  const quiz = await both('of-class')
  const [theirs, others] = [await begin(quiz, nell), await begin(quiz, kit)]
  const look = await lookAtClosing(db, quiz, { inClass: 'c-tuesday' }, later(10))
  expect(look.handedIn.map(({ name }) => name)).toEqual(['Nell Ashdown'])
  expect(look.shutOut).toHaveLength(13)
  expect(await closeNow(db, maren, quiz, { inClass: 'c-tuesday' }, later(10))).toEqual({ ended: 1 })
  expect([await stateOf(theirs, 11), await stateOf(others, 11)]).toEqual(['handed by teacher', 'open'])
  await expect(begin(quiz, petra, 12)).rejects.toMatchObject({ status: 409 })
  const { lines } = await quizRecord(db, maren, quiz, { after: 0, about: 'quiz' })
  expect(lines.map(({ what }) => what)).toContain('closed it at once for Tuesday evening')
})

it('for a student ends their paper alone, and they cannot begin another', async () => {
  const quiz = await both('of-student')
  const [hers, others] = [await begin(quiz, nell), await begin(quiz, petra)]
  expect((await lookAtClosing(db, quiz, { students: [nell] }, later(10))).handedIn).toHaveLength(1)
  expect(await closeNow(db, maren, quiz, { students: [nell] }, later(10))).toEqual({ ended: 1 })
  expect([await stateOf(hers, 11), await stateOf(others, 11)]).toEqual(['handed by teacher', 'open'])
  await expect(startSitting(db, await person(db, nell), quiz, { device: 'd1' }, later(12))).rejects.toMatchObject({
    status: 409,
  })
  // Once more is the same: what is closed stays as it was.
  expect(await closeNow(db, maren, quiz, { students: [nell] }, later(20))).toEqual({ ended: 0 })
  const own = (await loadQuiz(db, quiz)).quiz.rules.windows.filter(({ students }) => students.includes(nell))
  expect(own.map(({ closedAt }) => closedAt)).toEqual([later(10)])
  // Somebody of no class of the quiz has nothing to be closed.
  expect(await closeNow(db, maren, quiz, { students: ['p-idris'] }, later(21))).toEqual({ ended: 0 })
})

it('of papers without names is for everybody or for nobody', async () => {
  const quiz = await openedQuiz(db, 'unnamed', { anonymous: true })
  const attempt = await begin(quiz, nell)
  await expect(closeNow(db, maren, quiz, { students: [nell] }, later(10))).rejects.toMatchObject({ status: 409 })
  expect(await stateOf(attempt, 11)).toBe('open')
})

it('a copy goes to another term', async () => {
  const quiz = await both('to-term')
  const { id } = await copyQuiz(
    db,
    maren,
    quiz,
    { title: 'Again', withRules: true, days: 84, term: 'Spring' },
    later(1),
  )
  expect(await db.one('SELECT term FROM quiz WHERE id = ?', [id])).toEqual({ term: 'Spring' })
  expect((await loadQuiz(db, id)).quiz.rules.windows[0]!.opens).toBe(later(84 * 24 * 60))
})
