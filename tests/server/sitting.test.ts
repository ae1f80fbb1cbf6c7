import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newRow } from '../../core/quiz'
import { endAt } from '../../core/kit/time'
import { latestEnd, scheduleFor } from '../../core/schedule'
import { setAccommodation } from '../../server/domain/classes/needs'
import type { Database } from '../../server/database/database'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { closeNow, lookAtClosing } from '../../server/domain/quizzes/close'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { markedPaper, marksTable } from '../../server/domain/marks/marks'
import { loadAttempt } from '../../server/domain/sittings/attempts'
import { quizView } from '../../server/domain/quizzes/view'
import { studentsByIds } from '../../server/domain/classes/students'
import { settle } from '../../server/domain/sittings/end'
import { handIn } from '../../server/domain/sittings/hand-in'
import { saveAnswers } from '../../server/domain/sittings/save'
import { moveOn, openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz, rulesEdit } from '../support/quiz'
import { noAccommodation } from '../../core/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('sitting', day)).db
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const petra = 'p-petra-lund'
async function start(quiz: string, student = nell, at = day, device = 'd1') {
  return (await startSitting(db, await person(db, student), quiz, { device }, at)).attempt
}
/** One after another: each sees what the one before has done. */
async function inOrder<T, R>(all: readonly T[], work: (each: T) => Promise<R>): Promise<R[]> {
  const results: R[] = []
  for (const each of all) results.push(await work(each))
  return results
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
    expect(await handIn(db, nell, attempt, 1, [], later(4))).toMatchObject({ handedInAt: later(4), state: 'handed' })
    // Handing in twice is one handing in.
    expect(await handIn(db, nell, attempt, 1, [], later(9))).toMatchObject({ handedInAt: later(4), state: 'handed' })
    expect(await loadAttempt(db, attempt)).toMatchObject({ score: '3', possible: '3', state: 'handed' })
  })

  it('saves of many sittings at once go in few statements, and each is kept or refused for itself alone', async () => {
    const quiz = await openedQuiz(db, 'many')
    const class1 = await db.rows<{ person_id: string }>("SELECT person_id FROM enrolment WHERE class_id = 'c-tuesday'")
    const papers = await inOrder(class1, async ({ person_id: student }) => {
      const attempt = await start(quiz, student)
      return { student, attempt, item: (await itemsOf(db, attempt))['q-cover']!.item }
    })
    let statements = 0
    const counted: Database = {
      ...db,
      runPrepared: (sql, values) => {
        statements++
        return db.runPrepared(sql, values)
      },
    }
    const save = ({ student, attempt, item: asked }: (typeof papers)[number], seq: number, lease = 1) =>
      saveAnswers(counted, student, attempt, lease, [text(asked, `n${seq}`, seq)], later(1))
    const all = (seq: number) => Promise.all(papers.map((paper) => save(paper, seq)))
    expect((await all(1)).every(({ kept, refused }) => kept.length === 1 && !refused.length)).toBe(true)
    expect(papers.length).toBeGreaterThan(8)
    expect(statements).toBeLessThanOrEqual(3)
    // Another lease, one sent twice, one that is somebody else's: none takes another with it.
    const [first, second, third] = papers as [(typeof papers)[number], (typeof papers)[number], (typeof papers)[number]]
    const replies = await Promise.allSettled([
      ...papers.slice(3).map((paper) => save(paper, 2)),
      save(first, 2, 9),
      save(second, 1),
      save({ ...third, student: first.student }, 4),
    ])
    const kept = papers.slice(3).map(({ item: asked }) => [asked])
    expect(replies.slice(0, -3).map((reply) => reply.status === 'fulfilled' && reply.value.kept)).toEqual(kept)
    expect(
      replies
        .slice(-3)
        .map((reply) =>
          reply.status === 'fulfilled'
            ? [reply.value.kept.length, reply.value.refused[0]?.reason]
            : reply.reason.status,
        ),
    ).toEqual([[0, 'lease'], [1, undefined], 404])
    const two = await Promise.all([save(third, 2), save(third, 3)])
    // Whichever comes first: the later of the two counts, and the other is kept before it or is stale.
    expect(two[1]!.kept).toEqual([third.item])
    expect([...two[0]!.kept, ...two[0]!.refused.map(({ reason }) => reason)]).toEqual([
      two[0]!.kept.length ? third.item : 'stale',
    ])
    const stored = await db.rows<{ response: string; n: number }>(
      'SELECT w.response, COUNT(*) AS n FROM answer w JOIN attempt a ON a.id = w.attempt_id WHERE a.quiz_id = ? AND w.response IS NOT NULL GROUP BY w.response ORDER BY w.response',
      [quiz],
    )
    expect(stored).toEqual([
      { response: '{"text":"n1"}', n: 2 },
      { response: '{"text":"n2"}', n: papers.length - 3 },
      { response: '{"text":"n3"}', n: 1 },
    ])
  })

  it('what is no answer to its question is refused, said and set aside; the others of the batch are kept', async () => {
    const quiz = await openedQuiz(db, 'refuse')
    const attempt = await start(quiz)
    const items = await itemsOf(db, attempt)
    const datum = items['q-datum']!
    const [good, ...bad] = [
      text(items['q-cover']!.item, '2.3', 9),
      ...[{ chosen: ['nope'] }, { text: 'x' }, { chosen: Object.values(datum.options).slice(0, 2) }].map(
        (response, i) => ({ item: datum.item, response, flagged: false, seq: 2 + i }),
      ),
    ]
    const replies = await inOrder(bad, (each) => saveAnswers(db, nell, attempt, 1, [good!, each], later(1)))
    expect(replies.map((reply) => reply.kept)).toEqual(bad.map(() => [good!.item]))
    expect(replies.flatMap(({ refused }) => refused)).toEqual([
      { item: datum.item, reason: 'invalid', sentence: expect.stringMatching(/no such option/) as string },
      { item: datum.item, reason: 'invalid', sentence: expect.stringMatching(/./) as string },
      { item: datum.item, reason: 'invalid', sentence: expect.stringMatching(/Choose one/) as string },
    ])
    const { answers } = await openSitting(db, nell, attempt, 'd1', later(2))
    expect(answers.map(({ response }) => response).filter(Boolean)).toEqual([{ text: '2.3' }])
    const { aside } = await markedPaper(db, quiz, attempt, later(3))
    expect(aside.map(({ reason }) => reason)).toEqual(['invalid', 'invalid', 'invalid'])
    await expect(saveAnswers(db, nell, attempt, 1, [text('zzzzzz', 'x', 2)], later(1))).rejects.toThrow(
      /no such question/,
    )
    await expect(saveAnswers(db, nell, attempt, 1, [good!, good!], later(1))).rejects.toThrow(/once/)
    await expect(saveAnswers(db, petra, attempt, 1, [good!], later(1))).rejects.toThrow(/not here/)
  })

  it('two devices that open a sitting at once get leases of their own, and what either is refused is set aside', async () => {
    const quiz = await openedQuiz(db, 'devices', {
      attempts: { count: null, wait: 0, draw: 'fresh', untilPassed: false, untilShare: null, cost: 0, again: false },
    })
    const rounds = await inOrder(
      Array.from({ length: 30 }, (_, i) => i),
      async (round) => {
        const attempt = await start(quiz, nell, later(4 * round), `home-${round}`)
        const { item } = (await itemsOf(db, attempt))['q-cover']!
        const devices = ['a', 'b', 'c', 'd'].map((name) => `${name}-${round}`)
        const opened = await Promise.all(
          devices.map((device) => openSitting(db, nell, attempt, device, later(4 * round + 1))),
        )
        const replies = await Promise.all(
          opened.map(({ lease }, i) =>
            saveAnswers(db, nell, attempt, lease, [text(item, `of ${i}`, 1)], later(4 * round + 2)),
          ),
        )
        const rows = await db.rows<{ response: string }>(
          'SELECT response FROM answer WHERE attempt_id = ? AND item = ? UNION ALL SELECT response FROM answer_aside WHERE attempt_id = ?',
          [attempt, item, attempt],
        )
        await handIn(db, nell, attempt, Math.max(...opened.map(({ lease }) => lease)), [], later(3))
        return {
          leases: new Set(opened.map(({ lease }) => lease)).size,
          kept: replies.filter(({ kept }) => kept.length).length,
          found: new Set(rows.map(({ response }) => response)).size,
        }
      },
    )
    expect(rounds).toEqual(rounds.map(() => ({ leases: 4, kept: 1, found: 4 })))
  })

  it('handing in carries all answers in its transaction, and says what became of each', async () => {
    const quiz = await openedQuiz(db, 'carry')
    const attempt = await start(quiz)
    const items = await itemsOf(db, attempt)
    const [cover, datum, clearing] = [items['q-cover']!, items['q-datum']!, items['q-clearing']!]
    const sent = [
      text(cover.item, '2.3', 1),
      { item: datum.item, response: { chosen: ['nope'] }, flagged: false, seq: 2 },
      text(clearing.item, 'Clearing bearing', 3),
    ]
    await expect(handIn(db, nell, attempt, 4, sent, later(3))).rejects.toThrow(/another device/)
    const reply = await handIn(db, nell, attempt, 1, sent, later(4))
    expect(reply).toMatchObject({
      state: 'handed',
      handedInAt: later(4),
      saved: { kept: [cover.item, clearing.item], refused: [{ item: datum.item, reason: 'invalid' }] },
    })
    expect(await loadAttempt(db, attempt)).toMatchObject({ score: '2', possible: '3' })
    // The same again, as after a lost reply: nothing changes, and it is told as kept.
    expect(await handIn(db, nell, attempt, 1, sent, later(5))).toMatchObject({
      handedInAt: later(4),
      saved: { kept: [cover.item, clearing.item] },
    })
    // What comes with a second hand-in goes aside.
    const late = await handIn(db, nell, attempt, 1, [text(cover.item, '9.9', 8)], later(6))
    expect(late.saved).toEqual({ kept: [], refused: [{ item: cover.item, reason: 'ended' }] })
    const { aside } = await markedPaper(db, quiz, attempt, later(7))
    expect(aside.map(({ reason }) => reason).sort()).toEqual(['ended', 'invalid', 'invalid', 'lease', 'lease'])
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
    await expect(handIn(db, nell, attempt, 1, [], later(8))).rejects.toThrow(/another device/)
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
    expect(paper.attempt.how).toMatchObject({ handedInAt: later(60), endedBy: 'clock' })
  })

  it('forward only: a page left behind is closed for changes, by the server', async () => {
    const attempt = await start(
      await openedQuiz(db, 'forward', {}, { movement: 'forward', pages: { by: 'count', count: 1 } }),
    )
    const items = await itemsOf(db, attempt)
    expect(await moveOn(db, nell, attempt, 1, 1, later(1))).toEqual({ page: 1, putOff: [] })
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
    expect(await moveOn(db, nell, attempt, 1, 0, later(3))).toMatchObject({ page: 1 })
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
    expect(await closeNow(db, await person(db, 'p-maren'), quiz, { everybody: true }, later(10))).toEqual({ ended: 1 })
    await settle(db, { quiz }, later(10.1))
    expect(await loadAttempt(db, attempt)).toMatchObject({
      state: 'handed',
      handedInAt: later(10),
      endedBy: 'teacher',
    })
    await expect(start(quiz, petra, later(11))).rejects.toThrow(/closed/)
    // It is closed at that instant: no limit and no grace of a paper that was ended is waited for.
    const { state, quiz: closed } = await quizView(db, await person(db, 'p-maren'), quiz, later(10))
    expect(state).toBe('closed')
    expect(latestEnd(scheduleFor(closed.rules, (await studentsByIds(db, [nell])).get(nell)!))).toEqual(endAt(later(10)))
  })
  it('a closing hands in what is there whatever the deadline rule, as late as it is by then, and says so beforehand', async () => {
    const maren = await person(db, 'p-maren')
    const unsent = await openedQuiz(db, 'close-unsent', { atDeadline: 'unsent', limit: 60 })
    const left = await start(unsent)
    const { item } = (await itemsOf(db, left))['q-cover']!
    await saveAnswers(db, nell, left, 1, [text(item, '2.3', 1)], later(5))
    expect(await lookAtClosing(db, unsent, { everybody: true }, later(10))).toMatchObject({
      handedIn: [{ name: 'Nell Ashdown', minutesOver: 0 }],
      noFurther: [],
    })
    expect((await lookAtClosing(db, unsent, { everybody: true }, later(10))).shutOut).toContain('Petra Lund')
    await closeNow(db, maren, unsent, { everybody: true }, later(10))
    await settle(db, { quiz: unsent }, later(11))
    expect(await loadAttempt(db, left)).toMatchObject({ state: 'handed', handedInAt: later(10), score: '1' })

    const over = await openedQuiz(db, 'close-over', { atDeadline: 'finish', overrun: null, limit: 60, grace: 2 })
    const late = await start(over)
    expect((await lookAtClosing(db, over, { everybody: true }, later(90))).handedIn).toEqual([
      { name: 'Nell Ashdown', minutesOver: 28 },
    ])
    await closeNow(db, maren, over, { everybody: true }, later(90))
    await settle(db, { quiz: over }, later(91))
    expect(await loadAttempt(db, late)).toMatchObject({ state: 'handed', handedInAt: later(90), minutesOver: 28 })
  })
  it('a closing closes for those whose window their extra time stretches, too; a later end stretches again', async () => {
    const maren = await person(db, 'p-maren')
    const stretched = { ...noAccommodation, factor: 3, extraMinutes: 0, stretchWindow: true }
    await setAccommodation(db, maren, petra, stretched, day)
    const quiz = await openedQuiz(db, 'close-stretched')
    await closeNow(db, maren, quiz, { everybody: true }, later(10))
    await expect(start(quiz, petra, later(11))).rejects.toThrow(/closed/)
    const { quiz: closed, revision } = await loadQuiz(db, quiz)
    const windows = closed.rules.windows.map((window) => ({ ...window, closes: later(20) }))
    await makeEdit(db, maren, quiz, revision, 'test.9', await rulesEdit(db, quiz, { windows }), later(12))
    // Two hours beyond its end by their extra time.
    expect(await start(quiz, petra, later(100))).toBeTruthy()
    await setAccommodation(
      db,
      maren,
      petra,
      { ...noAccommodation, factor: 1, extraMinutes: 0, stretchWindow: false },
      later(101),
    )
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
      { ...noAccommodation, factor: 1.5, extraMinutes: 2, stretchWindow: false },
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
      await expect(startSitting(db, student, quiz, { device: 'd1', password: 'neap tide' }, day)).rejects.toThrow(
        /not the password/,
      )
    await expect(startSitting(db, student, quiz, { device: 'd1', password: 'spring tide' }, day)).rejects.toThrow(
      /Too many/,
    )
    expect(
      (await startSitting(db, student, quiz, { device: 'd1', password: 'spring tide' }, later(16))).attempt,
    ).toBeTruthy()
  })
  it('further attempts wait, draw anew or repeat, and stop at the number allowed', async () => {
    const pool = [
      newRow({
        type: 'pool',
        id: 'p',
        questions: ['q-datum', 'q-clearance', 'q-drying', 'q-cover', 'q-depth', 'q-lat'],
        draw: 3,
        points: 1,
      }),
    ]
    for (const draw of ['fresh', 'same'] as const) {
      const quiz = await openedQuiz(
        db,
        `again-${draw}`,
        { attempts: { count: 2, wait: 10, draw, untilPassed: false, untilShare: null, cost: 0, again: false } },
        {},
        pool,
      )
      const first = await start(quiz)
      await handIn(db, nell, first, 1, [], later(5))
      await expect(start(quiz, nell, later(14))).rejects.toThrow(/next attempt can start/)
      const second = await start(quiz, nell, later(15))
      const asked = Object.keys(await itemsOf(db, first))
      const seen = Object.keys(await itemsOf(db, second)).filter((id) => asked.includes(id)).length
      expect(seen).toBe(draw === 'same' ? 3 : 0)
      await handIn(db, nell, second, 1, [], later(16))
      await expect(start(quiz, nell, later(60))).rejects.toThrow(/used all 2/)
    }
  })
  it('is refused before the window and after it in a sentence; for other classes it is not here', async () => {
    const quiz = await openedQuiz(db, 'gates')
    await expect(start(quiz, nell, later(-5))).rejects.toThrow(/It opens Tue 14 May, 10:00/)
    await expect(start(quiz, nell, later(180))).rejects.toThrow(/It closed/)
    await expect(start(quiz, 'p-greta-vance', day)).rejects.toThrow(/not here/)
  })
})
