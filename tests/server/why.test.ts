/** Why somebody can or cannot sit a quiz, as its teacher asks: the same decision as at the door. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Edit } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { whyStudent } from '../../server/domain/quizzes/why'
import { handIn } from '../../server/domain/sittings/hand-in'
import { beforeSitting } from '../../server/domain/sittings/my-quizzes'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('why', day)).db
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const ask = async (quiz: string, student: string, minutes: number) =>
  whyStudent(db, await person(db, 'p-maren'), quiz, student, later(minutes))

it('is answered for who is in a class, who has sat it and who is elsewhere; a remedy lets them in', async () => {
  const quiz = await openedQuiz(db, 'why')
  expect(await ask(quiz, nell, 1)).toMatchObject({ may: true, sees: true })
  const { attempt } = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, later(2))
  expect((await ask(quiz, nell, 3)).sentence).toBe('Nell Ashdown is working on attempt 1 and may go on with it.')
  await handIn(db, nell, attempt, 1, [], later(4))
  const used = await ask(quiz, nell, 5)
  expect(used.sentence).toMatch(/has used 1 attempt/)
  expect(used.told).toBe((await beforeSitting(db, await person(db, nell), quiz, later(5))).may.sentence)
  const { revision } = await loadQuiz(db, quiz)
  const { edit } = used.remedy as { edit: Edit }
  await makeEdit(db, await person(db, 'p-maren'), quiz, revision, 'why.1', edit, later(6))
  expect(await ask(quiz, nell, 7)).toMatchObject({ may: true })
  expect((await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, later(8))).attempt).not.toBe(attempt)

  const kit = await ask(quiz, 'p-kit-sorrel', 9)
  expect(kit).toMatchObject({ may: false, sees: false, told: '' })
  expect(kit.sentence).toMatch(/^Kit Sorrel does not see it/)
  await expect(ask(quiz, 'p-idris', 9)).rejects.toMatchObject({ status: 404 })
})
