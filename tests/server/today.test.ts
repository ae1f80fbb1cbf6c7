/** What needs a teacher's hand now, and nothing of anybody else's. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { newRow, usualRules, type Rules } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { calendarOf } from '../../server/domain/people/calendar'
import { needsAHand } from '../../server/domain/today/today'
import { releaseTo } from '../../server/domain/quizzes/open'
import { handIn } from '../../server/domain/sittings/hand-in'
import { openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { saveAnswers } from '../../server/domain/sittings/save'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz, threeRows } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('today', day)).db
  await db.run("UPDATE quiz SET state = 'filed'")
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const todo = async (who: string, minutes: number) =>
  (await needsAHand(db, await person(db, who), later(minutes))).map(({ sort, quiz }) => `${sort} ${quiz}`)
const safe = Object.fromEntries(
  Object.entries(usualRules.release).map(([name, rule]) => [name, { ...rule, from: { at: 'never' } }]),
) as Rules['release']

it('is nothing where nothing waits, and each thing where it does, for who works in the quiz alone', async () => {
  expect(await todo('p-maren', 0)).toEqual([])
  const written = newRow({ type: 'question', id: 'r-w', question: 'q-h-plan', points: 1 })
  const quiz = await openedQuiz(
    db,
    'hand',
    { oneSitting: 5, release: { ...safe, grade: { ...safe.grade, from: { at: 'teacher' } } } },
    {},
    [...threeRows, written],
  )
  const { attempt } = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, later(1))
  await openSitting(db, nell, attempt, 'd1', later(2))
  expect(await todo('p-maren', 3)).not.toContain('let in hand')
  // Away for longer than one sitting allows.
  expect((await todo('p-maren', 20))[0]).toBe('let in hand')
  await db.run('UPDATE attempt SET seen_at = NULL WHERE id = ?', [attempt])
  const items = await itemsOf(db, attempt)
  const answers = Object.entries(items).flatMap(([question, { item }], i) =>
    question === 'q-h-plan' ? [{ item, response: { text: 'By words.' }, flagged: false, seq: i + 1 }] : [],
  )
  await saveAnswers(db, nell, attempt, 1, answers, later(21))
  await handIn(db, nell, attempt, 1, [], later(22))
  expect(await todo('p-maren', 23)).toContain('mark hand')
  // Her calendar has it as well, until it is marked.
  const calendar = async (who: string) => (await calendarOf(db, await person(db, who), later(23))).bytes
  expect(await calendar('p-maren')).toContain('SUMMARY:Quiz hand: 1 paper to mark')
  expect(await calendar('p-idris')).not.toContain('to mark')
  expect(await todo('p-maren', 23)).not.toContain('release hand')
  // Once it is over it waits for its release.
  expect(await todo('p-maren', 2000)).toContain('release hand')
  await releaseTo(db, await person(db, 'p-maren'), quiz, 'c-tuesday', later(2001))
  expect(await todo('p-maren', 2002)).toEqual(['mark hand'])
  expect(await todo('p-idris', 2002)).toEqual([])
})

it('tells of leaks and of what is worth a look in quizzes that open soon', async () => {
  await db.run("UPDATE quiz SET state = 'filed'")
  const [first] = (await openedQuizWindows()).windows
  await openedQuiz(db, 'leaky', {
    windows: [first!, { ...first!, id: 'w2', classes: ['c-saturday'], opens: later(600), closes: later(700) }],
    release: { ...usualRules.release, key: { ...usualRules.release.key, from: { at: 'handIn', offset: 0 } } },
  })
  expect(await todo('p-maren', -30)).toContain('leak leaky')
  const found = await needsAHand(db, await person(db, 'p-maren'), later(-30))
  expect(found.find(({ sort }) => sort === 'leak')!.words).toContain('Answers leak')
  expect(found.every(({ to }) => to.startsWith('/quizzes/leaky/'))).toBe(true)
})

/** The windows that an opened quiz of the tests has. */
async function openedQuizWindows(): Promise<Rules> {
  const { loadQuiz } = await import('../../server/domain/quizzes/quizzes')
  return (await loadQuiz(db, 'hand')).quiz.rules
}
