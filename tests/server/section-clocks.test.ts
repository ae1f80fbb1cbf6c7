import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newRow, newSection, type Section } from '../../core/quiz'
import { setAccommodation } from '../../server/domain/classes/needs'
import type { Database } from '../../server/database/database'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { editTo } from '../../core/quiz'
import { closeNow } from '../../server/domain/quizzes/close'
import { markedPaper } from '../../server/domain/marks/marks'
import { loadAttempt } from '../../server/domain/sittings/attempts'
import { handIn } from '../../server/domain/sittings/hand-in'
import { beforeSitting } from '../../server/domain/sittings/my-quizzes'
import { saveAnswers } from '../../server/domain/sittings/save'
import { enterSection } from '../../server/domain/sittings/enter-section'
import { openSitting, sittingClock } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz } from '../support/quiz'
import { noAccommodation } from '../../core/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('sections', day)).db
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const petra = 'p-petra-lund'
const silas = 'p-silas-penn'
const row = (question: string, more: object = {}) =>
  newRow({ type: 'question', id: `r-${question}`, question, points: 1, ...more })
/** One without a clock, then one of ten minutes, then one of five. */
const sections = (more: object = {}): Section[] => [
  newSection({ id: 'a', title: 'Open', rows: [row('q-datum')] }),
  newSection({ id: 'b', title: 'Ten', limit: 10, intro: '<p>SECRET-intro</p>', rows: [row('q-cover', more)] }),
  newSection({ id: 'c', title: 'Five', limit: 5, rows: [row('q-clearing')] }),
]
async function opened(id: string, more: object = {}) {
  const maren = await person(db, 'p-maren')
  await openedQuiz(db, id)
  const { quiz, revision } = await loadQuiz(db, id)
  const edit = editTo(quiz, { ...quiz, content: { ...quiz.content, sections: sections(more) } })!
  await makeEdit(db, maren, id, revision, `${id}.s`, edit, day)
  await openQuiz(db, maren, id, day)
  return id
}
const start = async (quiz: string, student = nell, at = day) =>
  (await startSitting(db, await person(db, student), quiz, { device: 'd1' }, at)).attempt
const answer = (item: string, text: string, seq: number) => ({ item, response: { text }, flagged: false, seq })
const sheetOf = async (attempt: string, minutes: number, student = nell) =>
  openSitting(db, student, attempt, 'd1', later(minutes))

describe('a section with a clock of its own', () => {
  it('is told before the start, with the time that the student has', async () => {
    const quiz = await opened('told')
    const { told } = await beforeSitting(db, await person(db, nell), quiz, day)
    expect(told).toContain('“Ten” has a clock of its own: 10 minutes from when you enter it.')
  })
  it('shows nothing but its size until it is entered, and takes nothing', async () => {
    const attempt = await start(await opened('shut'))
    const items = await itemsOf(db, attempt)
    const { sheet } = await sheetOf(attempt, 1)
    expect(sheet.sections.map(({ title, waits, entries }) => [title, waits, entries.length])).toEqual([
      ['Open', null, 1],
      ['Ten', { page: 1, questions: 1, points: 1 }, 0],
      ['Five', { page: 2, questions: 1, points: 1 }, 0],
    ])
    expect(JSON.stringify(sheet)).not.toMatch(/SECRET|covers/)
    const early = answer(items['q-cover']!.item, '2.3', 1)
    expect((await saveAnswers(db, nell, attempt, 1, [early], later(2))).refused).toEqual([
      { item: early.item, reason: 'section' },
    ])
    await enterSection(db, nell, attempt, 1, 1, later(3))
    const after = await sheetOf(attempt, 3)
    expect(after.sheet.sections.map(({ waits }) => waits !== null)).toEqual([false, false, true])
    expect(after.sections).toEqual([
      { place: 1, entered: later(3), deadline: later(13), stops: later(14), left: false },
    ])
    expect((await saveAnswers(db, nell, attempt, 1, [early], later(4))).kept).toEqual([early.item])
  })
  it('takes what comes until its clock and grace are over, and not a moment longer; the paper goes on', async () => {
    const attempt = await start(await opened('over'))
    const items = await itemsOf(db, attempt)
    const [datum, cover] = [items['q-datum']!, items['q-cover']!.item]
    await enterSection(db, nell, attempt, 1, 1, later(0))
    expect((await saveAnswers(db, nell, attempt, 1, [answer(cover, '2.3', 1)], later(11))).kept).toEqual([cover])
    const late = await saveAnswers(db, nell, attempt, 1, [answer(cover, '9', 2)], later(11.001))
    expect(late.refused).toEqual([{ item: cover, reason: 'section' }])
    const open = { item: datum.item, response: { chosen: [datum.options.a!] }, flagged: false, seq: 3 }
    expect((await saveAnswers(db, nell, attempt, 1, [open], later(12))).kept).toEqual([datum.item])
    await handIn(db, nell, attempt, 1, [], later(13))
    expect(await loadAttempt(db, attempt)).toMatchObject({ score: '2' })
    const { aside } = await markedPaper(db, 'over', attempt, later(14))
    expect(aside.map(({ reason }) => reason)).toEqual(['section'])
  })
  it('is closed when another is entered, also one without a clock; entering it again changes nothing', async () => {
    const attempt = await start(await opened('left'))
    const items = await itemsOf(db, attempt)
    const cover = items['q-cover']!.item
    await enterSection(db, nell, attempt, 1, 1, later(0))
    await saveAnswers(db, nell, attempt, 1, [answer(cover, '2.3', 1)], later(1))
    await enterSection(db, nell, attempt, 1, 0, later(2))
    expect((await saveAnswers(db, nell, attempt, 1, [answer(cover, '9', 2)], later(2.01))).refused).toHaveLength(1)
    await enterSection(db, nell, attempt, 1, 1, later(3))
    expect((await saveAnswers(db, nell, attempt, 1, [answer(cover, '9', 3)], later(3))).refused).toHaveLength(1)
    const { sections: clocks } = await sittingClock(db, nell, attempt, 1, later(4))
    expect(clocks).toMatchObject([{ place: 1, deadline: later(10), stops: later(2), left: true }])
  })
  it('is closed when it is left for the door of another, which begins nothing', async () => {
    const attempt = await start(await opened('door'))
    const items = await itemsOf(db, attempt)
    await enterSection(db, nell, attempt, 1, 1, later(0))
    await enterSection(db, nell, attempt, 1, null, later(1))
    const late = answer(items['q-cover']!.item, '2.3', 1)
    expect((await saveAnswers(db, nell, attempt, 1, [late], later(1.01))).refused).toMatchObject([
      { reason: 'section' },
    ])
    expect((await sheetOf(attempt, 2)).sections).toMatchObject([{ place: 1, left: true }])
  })
  it('begins once, however often and from however many devices it is entered at once', async () => {
    const attempt = await start(await opened('twice'))
    await Promise.all([1, 2, 3, 4].map((second) => enterSection(db, nell, attempt, 1, 1, later(second))))
    const entered = (await sheetOf(attempt, 5)).sections
    expect(entered).toHaveLength(1)
    expect([later(11), later(12), later(13), later(14)]).toContain(entered[0]!.deadline)
    const lines = await db.rows("SELECT 1 AS yes FROM record WHERE what = 'section entered' AND subject = ?", [attempt])
    expect(lines).toHaveLength(1)
    await openSitting(db, nell, attempt, 'd2', later(6))
    await expect(enterSection(db, nell, attempt, 1, 2, later(7))).rejects.toMatchObject({ code: 'lease' })
    expect((await sheetOf(attempt, 8)).sections).toHaveLength(1)
  })
  it('nobody else’s paper, no such section, a paper that is over: refused', async () => {
    const attempt = await start(await opened('refused'))
    await expect(enterSection(db, petra, attempt, 1, 1, later(1))).rejects.toMatchObject({ status: 404 })
    await expect(enterSection(db, nell, attempt, 1, 3, later(1))).rejects.toMatchObject({ code: 'section' })
    await handIn(db, nell, attempt, 1, [], later(2))
    await expect(enterSection(db, nell, attempt, 1, 1, later(3))).rejects.toMatchObject({ code: 'ended' })
  })
})

describe('with other rules', () => {
  it('extra time belongs to sections too, and given meanwhile it reaches those under way', async () => {
    const quiz = await opened('extra')
    const attempt = await start(quiz, petra)
    const maren = await person(db, 'p-maren')
    const give = (factor: number, at: number) =>
      setAccommodation(
        db,
        maren,
        petra,
        { ...noAccommodation, factor, extraMinutes: 0, stretchWindow: false },
        later(at),
      )
    await give(1.5, -1)
    await enterSection(db, petra, attempt, 1, 1, later(0))
    const clock = async (at: number) => (await sheetOf(attempt, at, petra)).sections[0]!
    expect((await clock(1)).deadline).toBe(later(15))
    await give(2, 2)
    expect((await clock(3)).deadline).toBe(later(20))
    // Taken back, nothing under way is shortened.
    await give(1, 4)
    expect((await clock(5)).deadline).toBe(later(20))
    const items = await itemsOf(db, attempt)
    const late = answer(items['q-cover']!.item, '2.3', 1)
    expect((await saveAnswers(db, petra, attempt, 1, [late], later(20.9))).kept).toHaveLength(1)
  })
  it('extra time given meanwhile opens nothing that was left', async () => {
    const quiz = await opened('extra-left')
    const attempt = await start(quiz, silas)
    const items = await itemsOf(db, attempt)
    await enterSection(db, silas, attempt, 1, 1, later(0))
    await enterSection(db, silas, attempt, 1, 2, later(1))
    await setAccommodation(
      db,
      await person(db, 'p-maren'),
      silas,
      { ...noAccommodation, factor: 3, extraMinutes: 0, stretchWindow: false },
      later(2),
    )
    expect((await sheetOf(attempt, 3, silas)).sections).toMatchObject([
      { place: 1, left: true, deadline: later(10) },
      { place: 2, left: false, deadline: later(16) },
    ])
    const both = [answer(items['q-cover']!.item, '2.3', 1), answer(items['q-clearing']!.item, 'clearing', 2)]
    const reply = await saveAnswers(db, silas, attempt, 1, both, later(15))
    expect([reply.kept, reply.refused]).toEqual([
      [items['q-clearing']!.item],
      [{ item: items['q-cover']!.item, reason: 'section' }],
    ])
  })
  it('a section is not left while something in it has to be answered, unless its time is over', async () => {
    const attempt = await start(await opened('must-stay', { required: true }))
    const items = await itemsOf(db, attempt)
    await enterSection(db, nell, attempt, 1, 1, later(0))
    for (const place of [0, 2, null])
      await expect(enterSection(db, nell, attempt, 1, place, later(1))).rejects.toMatchObject({
        code: 'required',
        more: { missing: [2] },
      })
    // Nothing of it was done by halves: the section goes on, and no other has begun.
    expect((await sheetOf(attempt, 2)).sections).toMatchObject([{ place: 1, left: false }])
    await saveAnswers(db, nell, attempt, 1, [answer(items['q-cover']!.item, '2.3', 1)], later(3))
    await enterSection(db, nell, attempt, 1, 2, later(4))
    const other = await start(await opened('must-over', { required: true }))
    await enterSection(db, nell, other, 1, 1, later(0))
    await enterSection(db, nell, other, 1, 2, later(12))
    expect((await sheetOf(other, 13)).sections).toHaveLength(2)
  })
  it('what has to be answered is not asked for where it cannot be any more', async () => {
    const attempt = await start(await opened('must', { required: true }))
    await expect(handIn(db, nell, attempt, 1, [], later(1))).rejects.toMatchObject({ more: { missing: [2] } })
    await enterSection(db, nell, attempt, 1, 1, later(2))
    await expect(handIn(db, nell, attempt, 1, [], later(3))).rejects.toMatchObject({ code: 'required' })
    expect(await handIn(db, nell, attempt, 1, [], later(14))).toMatchObject({ state: 'handed' })
  })
  it('closing the quiz at once ends a section as well', async () => {
    const quiz = await opened('closed')
    const attempt = await start(quiz)
    const items = await itemsOf(db, attempt)
    await enterSection(db, nell, attempt, 1, 1, later(0))
    await closeNow(db, await person(db, 'p-maren'), quiz, { everybody: true }, later(3))
    const late = await saveAnswers(db, nell, attempt, 1, [answer(items['q-cover']!.item, '2.3', 1)], later(4))
    expect(late.refused).toMatchObject([{ reason: 'ended' }])
  })
})
