/** Taking a paper up again, further attempts of only what was missed, pass marks of sections, and what counts as done. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { usualRules, type Rules } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { blankWindow } from '../../core/rules/windows'
import { closeNow } from '../../server/domain/quizzes/close'
import { setQuizState } from '../../server/domain/quizzes/open'
import { giveMark } from '../../server/domain/marks/by-hand'
import { marksTable } from '../../server/domain/marks/marks'
import { reviewFor } from '../../server/domain/reviews/review'
import { takeUpAgain } from '../../server/domain/sittings/again'
import { loadAttempt, loadPaper } from '../../server/domain/sittings/attempts'
import { confirmDone } from '../../server/domain/sittings/confirm'
import { settle } from '../../server/domain/sittings/end'
import { handIn } from '../../server/domain/sittings/hand-in'
import { beforeSitting, myQuizzes } from '../../server/domain/sittings/my-quizzes'
import { saveAnswers } from '../../server/domain/sittings/save'
import { openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz, threeRows } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('again', day)).db
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const attempts = (over: Partial<Rules['attempts']>) => ({ attempts: { ...usualRules.attempts, ...over } })
const begin = async (quiz: string, at = day) =>
  (await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, at)).attempt
const answered = async (attempt: string, words: Record<string, string>, at: string, seq: number, device = 'd1') => {
  const { lease } = await openSitting(db, nell, attempt, device, at)
  const items = await itemsOf(db, attempt)
  const answers = Object.entries(words).map(([question, text]) => ({
    item: items[question]!.item,
    response: text.startsWith('#') ? { chosen: [items[question]!.options[text.slice(1)]!] } : { text },
    flagged: false,
    seq,
  }))
  await saveAnswers(db, nell, attempt, lease, answers, at)
  return lease
}
const review = async (attempt: string, at: string) => reviewFor(db, await person(db, nell), attempt, at)
const mine = async (quiz: string, at: string) =>
  (await myQuizzes(db, await person(db, nell), at)).quizzes.find(({ id }) => id === quiz)!

describe('taking a paper up again', () => {
  const shown = {
    from: { at: 'handIn' as const, offset: 0 },
    until: null,
    once: false,
    ifPassed: false,
    wrongOnly: false,
  }
  const open = { release: { ...usualRules.release, key: shown, marks: shown, questions: shown, answers: shown } }
  it('goes on with what was kept, shows no key before it is final, and is marked as it is handed in last', async () => {
    const quiz = await openedQuiz(db, 'up-again', { ...attempts({ again: true }), ...open })
    const attempt = await begin(quiz)
    const lease = await answered(attempt, { 'q-cover': '9' }, later(5), 1)
    await handIn(db, nell, attempt, lease, [], later(10))
    const before = await review(attempt, later(11))
    expect(before).toMatchObject({ state: 'handed', score: { points: '0' }, again: { until: later(60) } })
    expect([before.facets.key, before.facets.marks].map(({ shown: is, from }) => [is, from])).toEqual([
      [false, later(60)],
      [false, later(60)],
    ])
    expect(before.facets.answers.shown).toBe(true)
    // Twice at once is once.
    await Promise.all([1, 2].map(() => takeUpAgain(db, nell, attempt, later(20))))
    expect(await loadAttempt(db, attempt)).toMatchObject({ state: 'open', score: null, handedInAt: null, lease: 2 })
    // What an old page sends is not taken under its old lease.
    const { item } = (await itemsOf(db, attempt))['q-cover']!
    const stale = [{ item, response: { text: '1' }, flagged: false, seq: 9 }]
    expect((await saveAnswers(db, nell, attempt, lease, stale, later(21))).refused[0]!.reason).toBe('lease')
    expect(
      (await openSitting(db, nell, attempt, 'd2', later(22))).answers.find((each) => each.item === item)!.response,
    ).toEqual({ text: '9' })
    const next = await answered(attempt, { 'q-cover': '2.3' }, later(23), 1, 'd2')
    await handIn(db, nell, attempt, next, [], later(30))
    expect(await review(attempt, later(31))).toMatchObject({ score: { points: '1' } })
    const after = await review(attempt, later(60))
    expect([after.again, after.facets.key.shown, after.facets.marks.shown]).toEqual([undefined, true, true])
    await expect(takeUpAgain(db, nell, attempt, later(61))).rejects.toThrow(/too late/)
    await expect(takeUpAgain(db, 'p-petra-lund', attempt, later(40))).rejects.toMatchObject({ status: 404 })
  })
  it('left lying, it is handed in by the clock with what is there', async () => {
    const quiz = await openedQuiz(db, 'up-lying', attempts({ again: true }))
    const attempt = await begin(quiz)
    const lease = await answered(attempt, { 'q-cover': '2.3' }, later(5), 1)
    await handIn(db, nell, attempt, lease, [], later(10))
    await takeUpAgain(db, nell, attempt, later(20))
    await settle(db, { attempt }, later(70))
    expect(await loadAttempt(db, attempt)).toMatchObject({ state: 'handed', endedBy: 'clock', score: '1' })
  })
  it('not once a further attempt is begun, nor while a teacher marks it; of both at once one happens', async () => {
    const quiz = await openedQuiz(db, 'up-race', attempts({ again: true, count: 5 }))
    const numbers = [1, 2, 3]
    for (const n of numbers) {
      const attempt = await begin(quiz, later(n * 10))
      await handIn(db, nell, attempt, 1, [], later(n * 10 + 1))
      const both = await Promise.allSettled([
        takeUpAgain(db, nell, attempt, later(n * 10 + 2)),
        begin(quiz, later(n * 10 + 2)),
      ])
      const open = await db.rows<{ number: number }>(
        "SELECT number FROM attempt WHERE quiz_id = ? AND state = 'open'",
        [quiz],
      )
      expect(open, JSON.stringify(both)).toHaveLength(1)
      const [under] = await db.rows<{ id: string; lease: number }>(
        "SELECT id, lease FROM attempt WHERE quiz_id = ? AND state = 'open'",
        [quiz],
      )
      const { lease } = await openSitting(db, nell, under!.id, 'd1', later(n * 10 + 3))
      await handIn(db, nell, under!.id, lease, [], later(n * 10 + 3))
      if ((await loadAttempt(db, under!.id)).number >= 5) break
    }
    const marked = await openedQuiz(db, 'up-marked', attempts({ again: true }))
    const attempt = await begin(marked)
    await handIn(db, nell, attempt, 1, [], later(5))
    const { item } = (await itemsOf(db, attempt))['q-cover']!
    await giveMark(db, await person(db, 'p-maren'), marked, attempt, { item, points: 1, comment: '' }, later(6))
    await expect(takeUpAgain(db, nell, attempt, later(7))).rejects.toThrow(/begun to mark/)
    expect((await review(attempt, later(7))).again).toBeUndefined()
  })
  it('not once a teacher has closed the quiz at once or withdrawn it, whatever was due later', async () => {
    const maren = await person(db, 'p-maren')
    const window = {
      ...blankWindow({ id: 'w1', classes: ['c-tuesday'], opens: day, closes: later(180) }),
      due: later(150),
    }
    const closed = await openedQuiz(db, 'up-closed', { ...attempts({ again: true }), windows: [window], limit: null })
    const attempt = await begin(closed)
    await handIn(db, nell, attempt, 1, [], later(5))
    expect((await review(attempt, later(6))).again).toEqual({ until: later(150) })
    await closeNow(db, maren, closed, { everybody: true }, later(10))
    expect((await review(attempt, later(11))).again).toBeUndefined()
    await expect(takeUpAgain(db, nell, attempt, later(11))).rejects.toThrow(/too late/)
    const withdrawn = await openedQuiz(db, 'up-withdrawn', attempts({ again: true }))
    const other = await begin(withdrawn)
    await handIn(db, nell, other, 1, [], later(5))
    await setQuizState(db, maren, withdrawn, 'withdrawn', later(10))
    await expect(takeUpAgain(db, nell, other, later(11))).rejects.toThrow(/not open any more/)
  })
  it('handing in is final unless the rules say otherwise', async () => {
    const attempt = await begin(await openedQuiz(db, 'up-final'))
    await handIn(db, nell, attempt, 1, [], later(5))
    await expect(takeUpAgain(db, nell, attempt, later(6))).rejects.toThrow(/final/)
  })
})

describe('only the questions missed', () => {
  it('a further attempt holds them alone, the best of each makes the score, and with nothing missed there is none', async () => {
    const quiz = await openedQuiz(db, 'missed', attempts({ count: null, draw: 'missed' }))
    const first = await begin(quiz)
    await handIn(
      db,
      nell,
      first,
      await answered(first, { 'q-cover': '2.3', 'q-clearing': 'no' }, later(1), 1),
      [],
      later(2),
    )
    const second = await begin(quiz, later(5))
    const paper = await loadPaper(db, second)
    expect(paper.items.map((item) => item.question).sort()).toEqual(['q-clearing', 'q-datum'])
    expect(paper).toMatchObject({ missedSince: 1, attempt: 2, pages: 1 })
    const opened = await openSitting(db, nell, second, 'd1', later(5))
    expect(opened.sheet.sections.flatMap((section) => section.entries)).toHaveLength(2)
    await handIn(db, nell, second, await answered(second, { 'q-datum': '#a' }, later(6), 1), [], later(7))
    expect(await loadAttempt(db, second)).toMatchObject({ score: '2', possible: '3' })
    const third = await begin(quiz, later(8))
    expect((await loadPaper(db, third)).items.map((item) => item.question)).toEqual(['q-clearing'])
    await handIn(db, nell, third, 1, [], later(9))
    expect(await loadAttempt(db, third)).toMatchObject({ score: '2', possible: '3' })
    // A mark that a teacher changes in the first carries on to those after it.
    const { item } = (await itemsOf(db, first))['q-clearing']!
    await giveMark(db, await person(db, 'p-maren'), quiz, first, { item, points: 1, comment: '' }, later(10))
    expect(await Promise.all([first, second, third].map(async (id) => (await loadAttempt(db, id)).score))).toEqual([
      '2',
      '3',
      '3',
    ])
    await expect(begin(quiz, later(11))).rejects.toThrow(/everything right/)
    expect(await mine(quiz, later(12))).toMatchObject({ may: 'done', grade: { text: '100.0 %' } })
  })
})

describe('pass marks of sections', () => {
  it('keep from passing in every place that tells it', async () => {
    const [datum, cover, clearing] = threeRows
    const section = { intro: '', order: 'kept' as const, pages: null, limit: null, objectives: [] }
    const quiz = await openedQuiz(
      db,
      'sectioned',
      { grade: { ...usualRules.grade, decimals: 0, sections: [{ id: 'pass-s2', section: 's2', percent: 50 }] } },
      {
        sections: [
          { ...section, id: 's1', title: 'Tides', rows: [datum!, cover!] },
          { ...section, id: 's2', title: 'Buoys', rows: [clearing!] },
        ],
      },
    )
    const attempt = await begin(quiz)
    expect((await beforeSitting(db, await person(db, 'p-petra-lund'), quiz, later(1))).told).toContain(
      'To pass, you need 50 % in “Buoys”.',
    )
    await handIn(
      db,
      nell,
      attempt,
      await answered(attempt, { 'q-datum': '#a', 'q-cover': '2.3' }, later(2), 1),
      [],
      later(3),
    )
    expect((await review(attempt, later(4))).grade).toMatchObject({
      text: '67 %',
      passed: false,
      sections: [{ title: 'Buoys', percent: '0', needed: 50, reached: false }],
    })
    expect(await mine(quiz, later(4))).toMatchObject({ grade: { passed: false } })
    const row = (await marksTable(db, quiz, later(4))).students.find(({ id }) => id === nell)
    expect(row).toMatchObject({ percent: '67', passed: false })
  })
})

describe('what counts as done', () => {
  const done = async (quiz: string, at: string) => [
    (await mine(quiz, at)).done,
    (await marksTable(db, quiz, at)).students.find(({ id }) => id === nell)!.done,
  ]
  it('seen, said so, handed in: apart from the grade', async () => {
    const student = await person(db, nell)
    const seen = await openedQuiz(db, 'done-seen', { done: 'seen' })
    expect(await done(seen, later(1))).toEqual([false, false])
    await beforeSitting(db, student, seen, later(2))
    expect(await done(seen, later(3))).toEqual([true, true])
    const said = await openedQuiz(db, 'done-said', { done: 'confirmed' })
    await beforeSitting(db, student, said, later(2))
    expect(await done(said, later(3))).toEqual([false, false])
    await confirmDone(db, student, said, true, later(4))
    expect(await done(said, later(5))).toEqual([true, true])
    await confirmDone(db, student, said, false, later(6))
    expect(await done(said, later(7))).toEqual([false, false])
    await expect(confirmDone(db, student, seen, true, later(8))).rejects.toMatchObject({ status: 409 })
    await expect(confirmDone(db, await person(db, 'p-greta-vance'), said, true, later(8))).rejects.toMatchObject({
      status: 404,
    })
  })
  it('by passing is not told before the grade is', async () => {
    const quiz = await openedQuiz(db, 'done-passed', {
      done: 'passed',
      grade: { ...usualRules.grade, pass: { by: 'percent', value: 10 } },
      release: {
        ...usualRules.release,
        grade: { from: { at: 'everyoneDone', offset: 0 }, until: null, once: false, ifPassed: false, wrongOnly: false },
      },
    })
    const attempt = await begin(quiz)
    await handIn(db, nell, attempt, await answered(attempt, { 'q-cover': '2.3' }, later(1), 1), [], later(2))
    expect(await done(quiz, later(3))).toEqual([false, true])
    expect(await done(quiz, later(600))).toEqual([true, true])
  })
})
