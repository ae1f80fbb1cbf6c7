import { unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newRow, usualRules, type Row } from '../../core/quiz'
import { addTo, setAt } from '../../core/quiz/edits'
import type { Database } from '../../server/database/database'
import { giveQuiz } from '../../server/domain/imports/tests'
import { addQuestion, reviseQuestion } from '../../server/domain/bank/questions/questions'
import { lookAtChecks } from '../../server/domain/quizzes/checks'
import { loadEdition } from '../../server/domain/quizzes/edition'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { reviewFor } from '../../server/domain/reviews/review'
import { loadAttempt } from '../../server/domain/sittings/attempts'
import { settle } from '../../server/domain/sittings/end'
import { handIn } from '../../server/domain/sittings/hand-in'
import { beforeSitting } from '../../server/domain/sittings/my-quizzes'
import { saveAnswers } from '../../server/domain/sittings/save'
import { moveOn, openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz, threeRows } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('promises', day)).db
})
afterAll(() => db.close())

const nell = { id: 'p-nell-ashdown', name: 'Nell Ashdown', zone: 'Europe/London' }
const start = async (quiz: string, at = day) =>
  (await startSitting(db, await person(db, nell.id), quiz, { device: 'd1' }, at)).attempt
const answer = (item: string, text: string, seq: number) => ({ item, response: { text }, flagged: false, seq })
/** The second and the third have to be answered. */
const required: Row[] = threeRows.map((row, i) => ({ ...row, required: i > 0 }) as Row)

describe('what has to be answered', () => {
  it('is asked for before handing in; what came with it is kept, and then it goes in', async () => {
    const attempt = await start(await openedQuiz(db, 'required', {}, {}, required))
    const items = await itemsOf(db, attempt)
    const cover = answer(items['q-cover']!.item, '2.3', 1)
    await expect(handIn(db, nell.id, attempt, 1, [cover], later(5))).rejects.toMatchObject({
      code: 'required',
      message: expect.stringContaining('question 3 before you hand in'),
      more: { missing: [3], saved: { kept: [cover.item] } },
    })
    expect((await loadAttempt(db, attempt)).state).toBe('open')
    const clearing = answer(items['q-clearing']!.item, 'clearing', 2)
    expect(await handIn(db, nell.id, attempt, 1, [clearing], later(6))).toMatchObject({ state: 'handed' })
    expect(await loadAttempt(db, attempt)).toMatchObject({ score: '2', possible: '3' })
    // A second handing in, with nothing in it, is the first.
    expect(await handIn(db, nell.id, attempt, 1, [], later(7))).toMatchObject({ handedInAt: later(6) })
  })
  it('an answer taken back, or an empty one, is none', async () => {
    const attempt = await start(await openedQuiz(db, 'taken-back', {}, {}, required))
    const items = await itemsOf(db, attempt)
    const [cover, clearing] = [items['q-cover']!.item, items['q-clearing']!.item]
    await saveAnswers(db, nell.id, attempt, 1, [answer(cover, '2.3', 1), answer(clearing, '   ', 2)], later(1))
    await saveAnswers(db, nell.id, attempt, 1, [{ item: cover, response: null, flagged: false, seq: 3 }], later(2))
    await expect(handIn(db, nell.id, attempt, 1, [], later(3))).rejects.toMatchObject({ more: { missing: [2, 3] } })
  })
  it('a device without the lease hears of that, and nothing of what is missing', async () => {
    const attempt = await start(await openedQuiz(db, 'other-device', {}, {}, required))
    await openSitting(db, nell.id, attempt, 'd2', later(1))
    await expect(handIn(db, nell.id, attempt, 1, [], later(2))).rejects.toMatchObject({ code: 'lease' })
  })
  it('the clock hands in without it', async () => {
    const attempt = await start(await openedQuiz(db, 'clock', {}, {}, required))
    await settle(db, { attempt }, later(120))
    expect((await loadAttempt(db, attempt)).state).toBe('handed')
  })
  it('a page that cannot be come back to is not left without it', async () => {
    const pages = { movement: 'forward' as const, pages: { by: 'count' as const, count: 1 } }
    const attempt = await start(await openedQuiz(db, 'forward', {}, pages, required))
    const items = await itemsOf(db, attempt)
    expect((await moveOn(db, nell.id, attempt, 1, 1, later(1))).page).toBe(1)
    await expect(moveOn(db, nell.id, attempt, 1, 2, later(2))).rejects.toMatchObject({
      code: 'required',
      more: { missing: [2] },
    })
    expect((await loadAttempt(db, attempt)).page).toBe(1)
    await saveAnswers(db, nell.id, attempt, 1, [answer(items['q-cover']!.item, '2.3', 1)], later(3))
    expect((await moveOn(db, nell.id, attempt, 1, 2, later(4))).page).toBe(2)
  })
})

describe('what is read before and after', () => {
  it('instructions for those who have begun are not told before', async () => {
    const asked = async (id: string, introShown: 'before' | 'begun') => {
      const quiz = await openedQuiz(db, id, {}, { intro: '<p>Use chart 3.</p>', introShown })
      const before = (await beforeSitting(db, await person(db, nell.id), quiz, day)).intro
      return [before, (await openSitting(db, nell.id, await start(quiz), 'd1', day)).sheet.intro]
    }
    expect(await asked('told', 'before')).toEqual(['<p>Use chart 3.</p>', '<p>Use chart 3.</p>'])
    expect(await asked('kept-back', 'begun')).toEqual(['', '<p>Use chart 3.</p>'])
  })
  const closing = [
    { id: 'low', from: 0, html: '<p>{name}, look at {quiz} again.</p>' },
    { id: 'high', from: 33.3, html: '<p>{score} of {quiz} on {date}; grade {grade}</p>' },
  ]
  const sat = async (id: string, score: 'handIn' | 'never', right: boolean) => {
    const from = score === 'never' ? ({ at: 'never' } as const) : ({ at: 'handIn', offset: 0 } as const)
    const facet = { from, until: null, once: false, ifPassed: false, wrongOnly: false }
    const never = { ...facet, from: { at: 'never' } as const }
    const quiz = await openedQuiz(
      db,
      id,
      { release: { ...usualRules.release, score: facet, grade: never } },
      { closing, after: '<p>Take out your book, {name}. {score}</p>' },
    )
    const attempt = await start(quiz)
    const items = await itemsOf(db, attempt)
    if (right) await saveAnswers(db, nell.id, attempt, 1, [answer(items['q-cover']!.item, '2.3', 1)], later(1))
    await handIn(db, nell.id, attempt, 1, [], later(10))
    return (await reviewFor(db, nell, attempt, later(11))).closing
  }
  it('closing words go by the score as it is shown, and say no more than is shown', async () => {
    expect(await sat('high', 'handIn', true)).toEqual({
      after: '<p>Take out your book, Nell Ashdown. 33.3 %</p>',
      words: '<p>33.3 % of Quiz high on Tue 14 May, 10:10; grade not shown yet</p>',
    })
    expect((await sat('low', 'handIn', false)).words).toBe('<p>Nell Ashdown, look at Quiz low again.</p>')
    expect(await sat('hidden', 'never', true)).toEqual({
      after: '<p>Take out your book, Nell Ashdown. not shown yet</p>',
      words: '',
    })
  })
  it('what teachers write there is cleaned when it is kept', async () => {
    const maren = await person(db, 'p-maren')
    const quiz = await openedQuiz(db, 'unclean')
    const before = (await loadQuiz(db, quiz)).quiz
    const bad = '<p onclick="x()">Done<script>alert(1)</script></p>'
    await makeEdit(db, maren, quiz, 0, 'u.1', setAt(before, ['content', 'after'], bad), later(1))
    await makeEdit(db, maren, quiz, 0, 'u.2', addTo(['content', 'closing'], null, [{ ...closing[0]!, html: bad }]), day)
    const { content } = (await loadQuiz(db, quiz)).quiz
    expect([content.after, content.closing[0]!.html]).toEqual(['<p>Done</p>', '<p>Done</p>'])
  })
})

describe('versions and languages', () => {
  it('a question that is pinned is frozen as it was then, others as they are now', async () => {
    const maren = await person(db, 'p-maren')
    const first = sampleQuestion('choice', { stem: '<p>First</p>', translations: { nl: { stem: '<p>Eerst</p>' } } })
    const [a, b] = [await addQuestion(db, maren, first, day), await addQuestion(db, maren, first, day)]
    for (const { id } of [a, b]) await reviseQuestion(db, maren, id, 1, { ...first, stem: '<p>Second</p>' }, day)
    const rows = [
      newRow({ type: 'question', id: 'r1', question: a.id, points: 1, version: 1 }),
      newRow({ type: 'question', id: 'r2', question: b.id, points: 1 }),
    ]
    const quiz = await openedQuiz(db, 'pinned', {}, { languages: ['nl', 'en'], sideBySide: true }, rows)
    const { questions } = await loadEdition(db, (await loadQuiz(db, quiz)).edition!)
    expect([questions[a.id]!, questions[b.id]!].map(({ version, question }) => [version, question.stem])).toEqual([
      [1, '<p>First</p>'],
      [2, '<p>Second</p>'],
    ])
    // A file of the quiz has the same versions.
    const files = unzipSync(new Uint8Array((await giveQuiz(db, maren, quiz, { as: 'qti-3.0' })).bytes))
    const items = Object.values(files).map((bytes) => new TextDecoder().decode(bytes))
    const holding = (stem: string) => items.filter((text) => text.includes(`>${stem}<`)).length
    expect([holding('First'), holding('Second')]).toEqual([1, 1])
    const codes = (await lookAtChecks(db, maren, quiz, '', day)).checks.map(({ code }) => code)
    expect(codes).toContain('pinned:r1')
    const attempt = await start(quiz)
    const stems = async (language?: string) => {
      const { sheet } = await openSitting(db, nell.id, attempt, 'd1', later(1), language)
      expect(sheet).toMatchObject({ mixed: false, sideBySide: true, languages: ['nl', 'en'] })
      return sheet.sections[0]!.entries.flatMap((entry) => (entry.type === 'question' ? entry.stem : []))
    }
    // The first that the quiz names is read until another is chosen; what is not offered is not read.
    expect(await stems()).toEqual(['<p>Eerst</p>', '<p>Eerst</p>'])
    expect(await stems('en')).toEqual(['<p>First</p>', '<p>Second</p>'])
    expect(await stems('fr')).toEqual(['<p>Eerst</p>', '<p>Eerst</p>'])
    expect((await stems('en+nl'))[0]).toBe('<p>First</p><br><span lang="nl"><p>Eerst</p></span>')
  })
  it('two languages are read together only where the quiz lets them be', async () => {
    const maren = await person(db, 'p-maren')
    const question = sampleQuestion('choice', { stem: '<p>First</p>', translations: { nl: { stem: '<p>Eerst</p>' } } })
    const { id } = await addQuestion(db, maren, question, day)
    const rows = [newRow({ type: 'question', id: 'r1', question: id, points: 1 })]
    const attempt = await start(await openedQuiz(db, 'one-at-a-time', {}, { languages: ['nl', 'en'] }, rows))
    const { sheet } = await openSitting(db, nell.id, attempt, 'd1', later(1), 'en+nl')
    expect([sheet.language, sheet.sections[0]!.entries[0]]).toMatchObject(['en', { stem: '<p>First</p>' }])
  })
  it('a version that is not there stops opening', async () => {
    const rows = [newRow({ type: 'question', id: 'r1', question: 'q-datum', points: 1, version: 99 })]
    await expect(openedQuiz(db, 'no-version', {}, {}, rows)).rejects.toMatchObject({ code: 'checks' })
  })
})
