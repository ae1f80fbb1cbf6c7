import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { setAccommodation } from '../../server/domain/classes/classes'
import type { Database } from '../../server/database/database'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { closeNow } from '../../server/domain/quizzes/open'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { markedPaper, marksTable } from '../../server/domain/marks/marks'
import { loadAttempt } from '../../server/domain/sittings/attempts'
import { settle } from '../../server/domain/sittings/end'
import { handIn } from '../../server/domain/sittings/hand-in'
import { saveAnswers } from '../../server/domain/sittings/save'
import { moveOn, openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz, rulesEdit } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('sitting', day)).db
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const petra = 'p-petra-lund'
async function start(quiz: string, student = nell, at = day, device = 'd1') {
  return (await startSitting(db, await person(db, student), quiz, device, undefined, at)).attempt
}
const text = (item: string, words: string, seq: number, flagged = false) => ({
  item,
  response: { text: words },
  flagged,
  seq,
})

describe('keeping answers', () => {
  it('keeps, never lets a stale save overwrite a newer one, and marks what was kept', async () => {
    const attempt = await start(await openedQuiz(db, 'keep'))
    const items = await itemsOf(db, attempt)
    const depth = items['q-cover']!.item
    expect((await saveAnswers(db, nell, attempt, 1, [text(depth, '2.3', 2)], later(1))).kept).toEqual([depth])
    expect((await saveAnswers(db, nell, attempt, 1, [text(depth, '9', 1)], later(2))).refused).toEqual([
      { item: depth, reason: 'stale' },
    ])
    // The same save sent again (a reply that was lost) counts as kept.
    expect((await saveAnswers(db, nell, attempt, 1, [text(depth, '2.3', 2)], later(2))).kept).toEqual([depth])
    const datum = items['q-datum']!
    const both = [
      { item: datum.item, response: { chosen: [datum.options.a!] }, flagged: false, seq: 3 },
      text(items['q-clearing']!.item, 'Clearing bearing', 4),
    ]
    expect((await saveAnswers(db, nell, attempt, 1, both, later(3))).kept).toHaveLength(2)
    expect(await handIn(db, nell, attempt, 1, later(4))).toEqual({ handedInAt: later(4), state: 'handed' })
    // Handing in twice is one handing in.
    expect(await handIn(db, nell, attempt, 1, later(9))).toEqual({ handedInAt: later(4), state: 'handed' })
    expect(await loadAttempt(db, attempt)).toMatchObject({ score: '3', possible: '3', state: 'handed' })
  })

  it('refuses what is no answer to the question, and keeps nothing of the batch', async () => {
    const attempt = await start(await openedQuiz(db, 'refuse'))
    const items = await itemsOf(db, attempt)
    const good = text(items['q-cover']!.item, '2.3', 1)
    for (const [bad, sentence] of [
      [text('zzzzzz', 'x', 2), /no such question/],
      [{ item: items['q-datum']!.item, response: { chosen: ['nope'] }, flagged: false, seq: 2 }, /no such option/],
      [{ item: items['q-datum']!.item, response: { text: 'x' }, flagged: false, seq: 2 }, /./],
      [
        {
          item: items['q-datum']!.item,
          response: { chosen: Object.values(items['q-datum']!.options).slice(0, 2) },
          flagged: false,
          seq: 2,
        },
        /Choose one/,
      ],
    ] as const) {
      await expect(saveAnswers(db, nell, attempt, 1, [good, bad], later(1))).rejects.toThrow(sentence)
    }
    const { answers } = await openSitting(db, nell, attempt, 'd1', later(2))
    expect(answers.every((answer) => answer.response === null)).toBe(true)
    await expect(saveAnswers(db, petra, attempt, 1, [good], later(1))).rejects.toThrow(/not here/)
  })

  it('what comes too late, or from an older lease, is set aside for the teacher', async () => {
    const quiz = await openedQuiz(db, 'aside')
    const attempt = await start(quiz)
    const { item } = (await itemsOf(db, attempt))['q-cover']!
    const taken = await openSitting(db, nell, attempt, 'd2', later(5))
    expect(taken).toMatchObject({ lease: 2, tookOver: true })
    expect((await openSitting(db, nell, attempt, 'd2', later(6))).tookOver).toBe(false)
    expect((await saveAnswers(db, nell, attempt, 1, [text(item, '1.0', 7)], later(6))).refused).toEqual([
      { item, reason: 'lease' },
    ])
    expect((await saveAnswers(db, nell, attempt, 2, [text(item, '2.3', 1)], later(7))).kept).toEqual([item])
    await expect(handIn(db, nell, attempt, 1, later(8))).rejects.toThrow(/another device/)
    // The limit is 60 minutes, the grace one: a minute and a second later nothing is taken.
    expect((await saveAnswers(db, nell, attempt, 2, [text(item, '2.4', 2)], later(61))).kept).toEqual([item])
    expect((await saveAnswers(db, nell, attempt, 2, [text(item, '2.5', 3)], later(61.1))).refused).toEqual([
      { item, reason: 'ended' },
    ])
    const paper = await markedPaper(db, quiz, attempt, later(62))
    expect(paper.aside.map(({ text: words, reason }) => [words, reason])).toEqual([
      ['1.0 m', 'lease'],
      ['2.5 m', 'ended'],
    ])
    expect(paper.attempt).toMatchObject({ handedInAt: later(60), endedBy: 'clock' })
  })

  it('forward only: a page left behind is closed for changes, by the server', async () => {
    const attempt = await start(
      await openedQuiz(db, 'forward', {}, { movement: 'forward', pages: { by: 'count', count: 1 } }),
    )
    const items = await itemsOf(db, attempt)
    expect(await moveOn(db, nell, attempt, 1, 1, later(1))).toEqual({ page: 1 })
    expect(
      (
        await saveAnswers(
          db,
          nell,
          attempt,
          1,
          [
            {
              item: items['q-datum']!.item,
              response: { chosen: [items['q-datum']!.options.a!] },
              flagged: false,
              seq: 1,
            },
          ],
          later(2),
        )
      ).refused[0]!.reason,
    ).toBe('page')
    expect(
      (await saveAnswers(db, nell, attempt, 1, [text(items['q-cover']!.item, '2.3', 2)], later(2))).kept,
    ).toHaveLength(1)
    expect(await moveOn(db, nell, attempt, 1, 0, later(3))).toEqual({ page: 1 })
    await expect(moveOn(db, nell, attempt, 1, 3, later(3))).rejects.toThrow(/3 pages/)
  })
})

describe('the end of a sitting', () => {
  it('comes by itself, dated at the deadline, whenever the sweep runs', async () => {
    const quiz = await openedQuiz(db, 'sweep')
    const attempt = await start(quiz)
    expect(await settle(db, { quiz }, later(61))).toBe(0)
    expect(await settle(db, { quiz }, later(500))).toBe(1)
    expect(await settle(db, { quiz }, later(500))).toBe(0)
    expect(await loadAttempt(db, attempt)).toMatchObject({
      state: 'handed',
      endedBy: 'clock',
      handedInAt: later(60),
      score: '0',
    })
  })
  it('leaves it unsent, counted as zero, where the rules say so', async () => {
    const quiz = await openedQuiz(db, 'unsent', { atDeadline: 'unsent' })
    const attempt = await start(quiz)
    const { item } = (await itemsOf(db, attempt))['q-cover']!
    await saveAnswers(db, nell, attempt, 1, [text(item, '2.3', 1)], later(5))
    const table = await marksTable(db, quiz, later(100))
    expect(table.students.find((student) => student.id === nell)).toMatchObject({
      percent: '0.0',
      passed: false,
      attempts: [{ state: 'unsent', score: '1' }],
    })
  })
  it('lets them finish, flagged by how much, until the greatest overrun', async () => {
    const quiz = await openedQuiz(db, 'finish', { atDeadline: 'finish', overrun: 30 })
    const attempt = await start(quiz)
    const { item } = (await itemsOf(db, attempt))['q-cover']!
    expect((await saveAnswers(db, nell, attempt, 1, [text(item, '2.3', 1)], later(71))).kept).toHaveLength(1)
    await settle(db, { quiz }, later(91))
    expect(await loadAttempt(db, attempt)).toMatchObject({
      state: 'handed',
      handedInAt: later(71),
      minutesOver: 10,
      score: '1',
    })
  })
  it('a closing that a teacher orders ends papers under way with what is there', async () => {
    const quiz = await openedQuiz(db, 'close')
    const attempt = await start(quiz)
    expect(await closeNow(db, await person(db, 'p-maren'), quiz, later(10))).toEqual({ ended: 1 })
    await settle(db, { quiz }, later(10.1))
    expect(await loadAttempt(db, attempt)).toMatchObject({ state: 'handed', handedInAt: later(10) })
    await expect(start(quiz, petra, later(11))).rejects.toThrow(/closed/)
  })
})

describe('rules stay living', () => {
  it('a longer limit reaches open sittings at once; a shorter one shortens nothing', async () => {
    const quiz = await openedQuiz(db, 'living')
    const attempt = await start(quiz)
    const maren = await person(db, 'p-maren')
    const set = async (limit: number, at: string) =>
      makeEdit(
        db,
        maren,
        quiz,
        (await loadQuiz(db, quiz)).revision,
        `live.${limit}`,
        await rulesEdit(db, quiz, { limit }),
        at,
      )
    await set(90, later(10))
    expect((await loadAttempt(db, attempt)).limits).toEqual({
      deadline: later(90),
      onTimeUntil: later(91),
      hardStop: later(91),
    })
    await set(30, later(20))
    expect((await loadAttempt(db, attempt)).limits.hardStop).toBe(later(91))
  })
  it('an accommodation is followed by every quiz, papers under way too; what has ended is not revived', async () => {
    const first = await start(await openedQuiz(db, 'acc1'), 'p-wyn-parrish')
    const over = await start(await openedQuiz(db, 'acc2', { limit: 5 }), 'p-wyn-parrish')
    await setAccommodation(
      db,
      await person(db, 'p-maren'),
      'p-wyn-parrish',
      { factor: 1.5, extraMinutes: 2, stretchWindow: false },
      later(30),
    )
    expect((await loadAttempt(db, first)).limits.deadline).toBe(later(92))
    expect((await loadAttempt(db, over)).limits.deadline).toBe(later(5))
    const next = await start(await openedQuiz(db, 'acc3'), 'p-wyn-parrish')
    expect((await loadAttempt(db, next)).limits.deadline).toBe(later(92))
  })
})

describe('starting', () => {
  it('two devices at once start one sitting', async () => {
    const quiz = await openedQuiz(db, 'twice')
    const attempts = await Promise.all(['d1', 'd2', 'd3', 'd4'].map((device) => start(quiz, nell, day, device)))
    expect(new Set(attempts).size).toBe(1)
  })
  it('asks for the password of the quiz, and not for ever', async () => {
    const quiz = await openedQuiz(db, 'word', { password: 'spring tide' })
    const student = await person(db, nell)
    await expect(start(quiz)).rejects.toThrow(/asks for a password/)
    for (let i = 0; i < 8; i++)
      await expect(startSitting(db, student, quiz, 'd1', 'neap tide', day)).rejects.toThrow(/not the password/)
    await expect(startSitting(db, student, quiz, 'd1', 'spring tide', day)).rejects.toThrow(/Too many/)
    expect((await startSitting(db, student, quiz, 'd1', 'spring tide', later(16))).attempt).toBeTruthy()
  })
  it('further attempts wait, draw anew or repeat, and stop at the number allowed', async () => {
    const pool = [
      {
        type: 'pool' as const,
        id: 'p',
        title: '',
        questions: ['q-datum', 'q-clearance', 'q-drying', 'q-cover', 'q-depth', 'q-lat'],
        draw: 3,
        points: 1,
        fixed: false,
      },
    ]
    for (const draw of ['fresh', 'same'] as const) {
      const quiz = await openedQuiz(
        db,
        `again-${draw}`,
        { attempts: { count: 2, wait: 10, draw, untilPassed: false, cost: 0 } },
        {},
        pool,
      )
      const first = await start(quiz)
      await handIn(db, nell, first, 1, later(5))
      await expect(start(quiz, nell, later(14))).rejects.toThrow(/next attempt can start/)
      const second = await start(quiz, nell, later(15))
      const asked = Object.keys(await itemsOf(db, first))
      const seen = Object.keys(await itemsOf(db, second)).filter((id) => asked.includes(id)).length
      expect(seen).toBe(draw === 'same' ? 3 : 0)
      await handIn(db, nell, second, 1, later(16))
      await expect(start(quiz, nell, later(60))).rejects.toThrow(/used all 2/)
    }
  })
  it('is refused before the window, after it, and to other classes, in a sentence', async () => {
    const quiz = await openedQuiz(db, 'gates')
    await expect(start(quiz, nell, later(-5))).rejects.toThrow(/It opens Tue 14 May, 10:00/)
    await expect(start(quiz, nell, later(180))).rejects.toThrow(/It closed/)
    await expect(start(quiz, 'p-greta-vance', day)).rejects.toThrow(/not meant for your class/)
  })
})
