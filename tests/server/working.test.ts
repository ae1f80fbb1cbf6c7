/** Checking answers and asking for hints while a paper is sat: sealed until asked, once however often sent, and paid for. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { usualRules, type Rules } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { loadQuestion, reviseQuestion } from '../../server/domain/bank/questions/questions'
import { lookAtChecks } from '../../server/domain/quizzes/checks'
import { reviewFor } from '../../server/domain/reviews/review'
import { loadAttempt } from '../../server/domain/sittings/attempts'
import { handIn } from '../../server/domain/sittings/hand-in'
import { saveAnswers } from '../../server/domain/sittings/save'
import { openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { checkAnswer, giveHint } from '../../server/domain/sittings/working'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz } from '../support/quiz'

let db: Database
const hints = ['<p>HINT-one</p>', '<p>HINT-two</p>']
beforeAll(async () => {
  db = (await freshDatabase('working', day)).db
  const maren = await person(db, 'p-maren')
  const { question, version } = await loadQuestion(db, maren, 'q-cover')
  await reviseQuestion(db, maren, 'q-cover', version, { ...question, hints }, later(-300))
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const working = (over: Partial<Rules['working']>) => ({ working: { ...usualRules.working, ...over } })
async function begun(name: string, rules: Partial<Rules>) {
  const quiz = await openedQuiz(db, name, rules)
  const { attempt } = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, day)
  return { quiz, attempt, items: await itemsOf(db, attempt) }
}
const answer = (item: string, text: string, seq: number) => ({ item, response: { text }, flagged: false, seq })

describe('checking an answer', () => {
  it('tells whether it is right, counts a try once however often it is sent, and takes its cost', async () => {
    const { attempt, items } = await begun('check', working({ check: true, cost: 20, tries: 3 }))
    const { item } = items['q-cover']!
    const check = (text: string, seq: number, at: string) =>
      checkAnswer(db, nell, attempt, 1, answer(item, text, seq), at)
    const replies = await Promise.all([1, 2, 3].map(() => check('9', 1, later(1))))
    expect(replies.map(({ help }) => [help.verdict, help.checks, help.left])).toEqual(
      replies.map(() => ['wrong', 1, 2]),
    )
    expect((await check('9', 2, later(2))).help.checks).toBe(1)
    expect((await check('2.3', 3, later(3))).help).toMatchObject({ verdict: 'right', checks: 2, settled: true })
    // Sent once more it says the same; a changed answer is not taken any more, and is set aside.
    expect((await check('2.3', 3, later(3))).help.checks).toBe(2)
    const after = await saveAnswers(db, nell, attempt, 1, [answer(item, '8', 4)], later(3))
    expect(after.refused).toEqual([{ item, reason: 'settled' }])
    expect((await check('7', 5, later(4))).saved.refused[0]!.reason).toBe('settled')
    await handIn(db, nell, attempt, 1, [], later(5))
    expect(await loadAttempt(db, attempt)).toMatchObject({ score: '4/5' })
  })
  it('with no further try it is closed wrong; an answer changed after a check is a try more', async () => {
    const { attempt, items } = await begun('tries', working({ check: true, cost: 10, tries: 2 }))
    const [cover, clearing] = [items['q-cover']!.item, items['q-clearing']!.item]
    await checkAnswer(db, nell, attempt, 1, answer(cover, '8', 1), later(1))
    expect((await checkAnswer(db, nell, attempt, 1, answer(cover, '9', 2), later(2))).help).toMatchObject({
      verdict: 'wrong',
      left: 0,
      settled: true,
    })
    await checkAnswer(db, nell, attempt, 1, answer(clearing, 'no', 3), later(3))
    await saveAnswers(db, nell, attempt, 1, [answer(clearing, 'slack', 4)], later(4))
    const opened = await openSitting(db, nell, attempt, 'd1', later(5))
    expect(opened.help!.items[cover]).toMatchObject({ settled: true, verdict: 'wrong', checks: 2 })
    await handIn(db, nell, attempt, 1, [], later(6))
    const review = await reviewFor(db, await person(db, nell), attempt, later(600))
    const marks = review.sections.flatMap(({ questions }) => questions.map(({ item, mark }) => [item, mark?.checks]))
    expect(Object.fromEntries(marks)).toMatchObject({ [cover]: 2, [clearing]: 1 })
  })
  it('is refused where the rules do not allow it, by other students, from other devices, and with nothing to check', async () => {
    const plain = await begun('no-check', {})
    const { item } = plain.items['q-cover']!
    await expect(checkAnswer(db, nell, plain.attempt, 1, answer(item, '9', 1), later(1))).rejects.toMatchObject({
      status: 422,
    })
    expect((await openSitting(db, nell, plain.attempt, 'd1', later(1))).help).toBeNull()
    const { attempt, items } = await begun('check-refused', working({ check: true }))
    const own = items['q-cover']!.item
    const empty = { ...answer(own, '', 1), response: null }
    await expect(checkAnswer(db, nell, attempt, 1, empty, later(1))).rejects.toThrow(/first/)
    await expect(checkAnswer(db, nell, attempt, 7, answer(own, '1', 2), later(1))).rejects.toMatchObject({
      status: 409,
    })
    await expect(checkAnswer(db, 'p-petra-lund', attempt, 1, answer(own, '1', 2), later(1))).rejects.toMatchObject({
      status: 404,
    })
    const choice = { ...answer(items['q-datum']!.item, '', 3), response: { chosen: ['none'] } }
    await expect(checkAnswer(db, nell, attempt, 1, choice, later(1))).rejects.toMatchObject({ status: 422 })
    await expect(checkAnswer(db, nell, attempt, 1, answer(own, '1', 4), later(90))).rejects.toMatchObject({
      status: 409,
    })
    await expect(
      checkAnswer(
        db,
        nell,
        (await begun('check-survey', { ...working({ check: true }), counts: 'survey' })).attempt,
        1,
        answer(own, '1', 1),
        later(1),
      ),
    ).rejects.toMatchObject({ status: 422 })
  })
})

describe('hints', () => {
  it('are not in the sheet before they are asked for; given one after another, once each, at their cost', async () => {
    const { attempt, items } = await begun('hints', working({ hints: true, hintCost: 30 }))
    const { item } = items['q-cover']!
    const opened = await openSitting(db, nell, attempt, 'd1', later(1))
    expect(JSON.stringify(opened)).not.toContain('HINT')
    expect(opened.help!.items[item]).toMatchObject({ hints: [], hintsLeft: 2 })
    expect(opened.help!.items[items['q-datum']!.item]).toMatchObject({ hints: [], hintsLeft: 0 })
    const ask = (number: number, at: string, lease = 1) => giveHint(db, nell, attempt, { lease, item, number }, at)
    await expect(ask(2, later(2))).rejects.toThrow(/one after another/)
    const same = await Promise.all([1, 1, 1].map((number) => ask(number, later(2))))
    expect(same.map(({ help }) => help.hints)).toEqual(same.map(() => [hints[0]]))
    await expect(ask(2, later(3), 9)).rejects.toMatchObject({ status: 409 })
    expect((await ask(2, later(3))).help).toMatchObject({ hints, hintsLeft: 0 })
    await expect(ask(3, later(4))).rejects.toThrow(/no further/)
    await saveAnswers(db, nell, attempt, 1, [answer(item, '2.3', 1)], later(4))
    await handIn(db, nell, attempt, 1, [], later(5))
    expect(await loadAttempt(db, attempt)).toMatchObject({ score: '2/5' })
    await expect(ask(1, later(6))).resolves.toMatchObject({ help: { hints } })
  })
  it('are not given where the rules do not', async () => {
    const { attempt, items } = await begun('no-hints', working({ check: true }))
    const { item } = items['q-cover']!
    await expect(giveHint(db, nell, attempt, { lease: 1, item, number: 1 }, later(1))).rejects.toMatchObject({
      status: 422,
    })
    const { help } = await openSitting(db, nell, attempt, 'd1', later(1))
    expect(help!.items[item]).toMatchObject({ hints: [], hintsLeft: 0 })
  })
})

it('checking that counts is worth a look, and is found as a leak with a remedy that mends it', async () => {
  const { quiz } = await begun('check-leak', working({ check: true }))
  const found = (await lookAtChecks(db, await person(db, 'p-maren'), quiz, '', later(0))).checks
  const leak = found.find(({ code }) => code === 'leak')!
  expect(leak.sentence).toMatch(/while they work/)
  expect(found.map(({ code }) => code)).toContain('checked-and-counts')
})
