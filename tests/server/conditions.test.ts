import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { allRows, condition, mostHeld, newRow, questionsUsed, type Condition } from '../../core/quiz'
import { addRows, setAt } from '../../core/quiz/edits'
import type { Database } from '../../server/database/database'
import { addQuestion, setQuestionState } from '../../server/domain/bank/questions/questions'
import { insertQuestions } from '../../server/domain/bank/questions/rows'
import { addFolder } from '../../server/domain/bank/describing/folders'
import { lookAtChecks } from '../../server/domain/quizzes/checks'
import { loadEdition } from '../../server/domain/quizzes/edition'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { heldNow } from '../../server/domain/quizzes/held'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz, shareQuiz, unshareQuiz } from '../../server/domain/quizzes/quizzes'
import { quizView } from '../../server/domain/quizzes/view'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz, rulesEdit } from '../support/quiz'

let db: Database
let maren: Awaited<ReturnType<typeof person>>
let idris: Awaited<ReturnType<typeof person>>
beforeAll(async () => {
  db = (await freshDatabase('conditions', day)).db
  ;[maren, idris] = [await person(db, 'p-maren'), await person(db, 'p-idris')]
})
afterAll(() => db.close())

/** A quiz of Maren's with a pool by a condition. */
async function quizBy(id: string, by: Partial<Condition>, draw = 1): Promise<string> {
  await createQuiz(db, maren, `Quiz ${id}`, day, id)
  const { quiz } = await loadQuiz(db, id)
  const pool = newRow({ type: 'pool', id: 'p', questions: [], condition: condition.parse(by), draw, points: 1 })
  await makeEdit(db, maren, id, 0, `${id}.1`, addRows(quiz.content.sections[0]!.id, null, [pool]), day)
  return id
}
const heldIn = async (id: string) => (await heldNow(db, await loadQuiz(db, id))).get('p')!
const tagged = (tag: string, over: object = {}) => sampleQuestion('choice', { tags: [tag], ...over })

describe('what a condition finds', () => {
  it('is what can be used and meets each of its parts, as things are now', async () => {
    const folder = await addFolder(db, maren, { name: 'Spring term', parent: null })
    const lying = await addQuestion(db, maren, tagged('springterm', { difficulty: 2 }), day, 'c-1', {
      folder: folder.id,
      sharing: 'school',
    })
    await addQuestion(db, maren, tagged('springterm', { difficulty: 4 }), day, 'c-2')
    await addQuestion(db, maren, sampleQuestion('choice', { tags: ['springterm'], stem: '' }), day, 'c-3')
    expect(await heldIn(await quizBy('by-tag', { tag: ['springterm'] }))).toEqual(['c-1', 'c-2'])
    expect(await heldIn(await quizBy('by-both', { tag: ['springterm'], difficulty: [4, 5] }))).toEqual(['c-2'])
    expect(await heldIn(await quizBy('by-folder', { folder: [folder.id] }))).toEqual([lying.id])
    expect(await heldIn(await quizBy('but', { tag: ['springterm'], except: ['c-2'] }))).toEqual(['c-1'])
    await setQuestionState(db, maren, 'c-1', true, day)
    expect(await heldIn('by-tag')).toEqual(['c-2'])
    await setQuestionState(db, maren, 'c-1', false, day)
  })
  it('may be what other quizzes hold, of those that somebody here works in, and what was long not used', async () => {
    await openedQuiz(db, 'earlier')
    expect(await heldIn(await quizBy('of-earlier', { quizzes: ['earlier'] }))).toEqual([
      'q-clearing',
      'q-cover',
      'q-datum',
    ])
    expect(await heldIn(await quizBy('unused', { quizzes: ['earlier'], unusedSince: later(-500) }))).toEqual([])
    await createQuiz(db, idris, 'Idris alone', day, 'of-idris')
    const { quiz } = await loadQuiz(db, 'of-idris')
    const row = newRow({ type: 'question', id: 'r', question: 'q-depth', points: 1 })
    await makeEdit(db, idris, 'of-idris', 0, 'i.1', addRows(quiz.content.sections[0]!.id, null, [row]), day)
    expect(await heldIn(await quizBy('of-others', { quizzes: ['of-idris'] }))).toEqual([])
    await shareQuiz(db, idris, 'of-idris', { email: 'maren.holt@gannet.example' }, day)
    expect(await heldIn('of-others')).toEqual(['q-depth'])
  })
  it('of very many is the same first ones each time', async () => {
    const rows = Array.from({ length: mostHeld + 30 }, (_, i) => `many-${String(i).padStart(4, '0')}`)
    const question = tagged('verymany')
    await db.transaction((tx) => insertQuestions(tx, maren, rows.map((id) => ({ id, question })).reverse(), day))
    const quiz = await quizBy('very-many', { tag: ['verymany'] })
    const held = await heldIn(quiz)
    expect([held.length, held[0], held.at(-1)]).toEqual([mostHeld, rows[0], rows[mostHeld - 1]])
    expect(await heldIn(quiz)).toEqual(held)
  })
  it('is never what somebody who works in the quiz may not see', async () => {
    for (const [id, who] of [
      ['own-m', maren],
      ['own-i', idris],
    ] as const)
      await addQuestion(db, who, tagged('secret'), day, id, { folder: null, sharing: 'private' })
    await addQuestion(db, maren, tagged('secret'), day, 'open-m')
    const quiz = await quizBy('secret', { tag: ['secret'] })
    expect(await heldIn(quiz)).toEqual(['open-m', 'own-m'])
    await shareQuiz(db, maren, quiz, { email: 'idris.quayle@gannet.example' }, day)
    expect(await heldIn(quiz)).toEqual(['open-m'])
    const view = await quizView(db, idris, quiz, day)
    expect(JSON.stringify(view)).not.toContain('own-')
    await unshareQuiz(db, maren, quiz, idris.id, day)
    expect(await heldIn(quiz)).toEqual(['open-m', 'own-m'])
  })
})

describe('in a quiz', () => {
  it('the page hears what is held with the checks, and only when it has changed', async () => {
    const quiz = await quizBy('heard', { tag: ['heard'] })
    const first = await lookAtChecks(db, maren, quiz, '', day)
    expect(first.held?.pools).toEqual([{ row: 'p', questions: [] }])
    expect(first.checks.map(({ code }) => code)).toContain('pool-short:p')
    await addQuestion(db, maren, tagged('heard'), day, 'h-1')
    const second = await lookAtChecks(db, maren, quiz, first.held!.stamp, day)
    expect(second.held).toMatchObject({ pools: [{ questions: ['h-1'] }], questions: [{ id: 'h-1' }] })
    expect((await lookAtChecks(db, maren, quiz, second.held!.stamp, day)).held).toBeNull()
  })
  it('opening freezes what is found then; what comes later is for the next edition', async () => {
    const quiz = await quizBy('frozen', { tag: ['frozen'] }, 2)
    for (const id of ['f-1', 'f-2', 'f-3']) await addQuestion(db, maren, tagged('frozen'), day, id)
    const window = {
      id: 'w1',
      classes: ['c-tuesday'],
      opens: day,
      closes: later(180),
      due: null,
      latestStart: null,
      groups: [],
      students: [],
      closedAt: null,
      password: null,
    }
    await makeEdit(db, maren, quiz, 1, 'f.2', await rulesEdit(db, quiz, { windows: [window] }), day)
    await openQuiz(db, maren, quiz, day)
    const row = await loadQuiz(db, quiz)
    const edition = await loadEdition(db, row.edition!)
    expect(questionsUsed(edition.content)).toEqual(['f-1', 'f-2', 'f-3'])
    expect(Object.keys(edition.questions).sort()).toEqual(['f-1', 'f-2', 'f-3'])
    expect(allRows(row.quiz.content)).toMatchObject([{ questions: [], condition: { tag: ['frozen'] } }])
    expect((await quizView(db, maren, quiz, day)).ahead).toBe(false)
    // They count as used in it, also after an edit: taking an import back, for one, leaves them.
    const { quiz: kept, revision } = await loadQuiz(db, quiz)
    await makeEdit(db, maren, quiz, revision, 'frozen.t', setAt(kept, ['content', 'title'], 'Renamed'), day)
    const used = await db.rows<{ id: string }>('SELECT question_id AS id FROM quiz_question WHERE quiz_id = ?', [quiz])
    expect(used.map(({ id }) => id).sort()).toEqual(['f-1', 'f-2', 'f-3'])
    await makeEdit(
      db,
      maren,
      quiz,
      revision + 1,
      'frozen.u',
      setAt((await loadQuiz(db, quiz)).quiz, ['content', 'title'], 'Quiz frozen'),
      day,
    )
    await openQuiz(db, maren, quiz, day)
    await expect(openQuiz(db, maren, quiz, day)).rejects.toMatchObject({ code: 'open-already' })
    // A question more: the quiz is ahead of what students sit, and can be given to them.
    await addQuestion(db, maren, tagged('frozen'), day, 'f-4')
    expect((await quizView(db, maren, quiz, day)).ahead).toBe(true)
    await openQuiz(db, maren, quiz, day)
    const second = await loadEdition(db, (await loadQuiz(db, quiz)).edition!)
    expect([second.number, questionsUsed(second.content)]).toEqual([3, ['f-1', 'f-2', 'f-3', 'f-4']])
  })
})
