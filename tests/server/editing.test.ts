import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { applyEdit, type Edit } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { migrate, statements } from '../../server/database/migrate'
import { addQuestion, loadQuestion, reviseQuestion } from '../../server/domain/bank/questions'
import { searchQuery, searchQuestions } from '../../server/domain/bank/search'
import { previewQuestion } from '../../server/domain/bank/preview'
import { editsSince, makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz, setQuizState } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import type { Person } from '../../server/domain/people/people'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz } from '../support/quiz'

let db: Database
let maren: Person
let idris: Person
beforeAll(async () => {
  db = (await freshDatabase('editing', day)).db
  maren = await person(db, 'p-maren')
  idris = await person(db, 'p-idris')
})
afterAll(() => db.close())

const addRow = (section: string, question: string): Edit => ({
  do: 'addRows',
  section,
  after: null,
  rows: [{ type: 'question', id: `r-${question}`, question, points: 1, fixed: false }],
})

describe('two teachers in one quiz', () => {
  it('edits to different things both stand; both pages end with the same quiz', async () => {
    const id = await createQuiz(db, maren, 'Together', day)
    const start = (await loadQuiz(db, id)).quiz
    const section = start.content.sections[0]!.id
    await makeEdit(db, maren, id, 0, 'maren.1', addRow(section, 'q-datum'), day)
    const reply = await makeEdit(db, idris, id, 0, 'idris.1', { do: 'setRules', values: { limit: 30 } }, day)
    expect(reply.since.map((each) => each.byName)).toEqual(['Maren Holt', 'Idris Quayle'])
    const replayed = reply.since.reduce((quiz, { edit }) => applyEdit(quiz, edit).quiz, start)
    expect(replayed).toEqual((await loadQuiz(db, id)).quiz)
  })
  it('edits to the same thing conflict, with who; nothing is changed', async () => {
    const id = await createQuiz(db, maren, 'Clash', day)
    await makeEdit(db, maren, id, 0, 'maren.1', { do: 'setRules', values: { limit: 30 } }, day)
    await expect(
      makeEdit(db, idris, id, 0, 'idris.1', { do: 'setRules', values: { limit: 50 } }, day),
    ).rejects.toMatchObject({ status: 409, sentence: expect.stringContaining('Maren Holt') })
    expect((await loadQuiz(db, id)).quiz.rules.limit).toBe(30)
    // A page's own earlier edit is no conflict, even when it has not heard of it yet.
    await makeEdit(db, maren, id, 0, 'maren.2', { do: 'setRules', values: { limit: 40 } }, day)
    expect((await loadQuiz(db, id)).quiz.rules.limit).toBe(40)
  })
  it('a save that is sent again is the same save', async () => {
    const id = await createQuiz(db, maren, 'Again', day)
    const section = (await loadQuiz(db, id)).quiz.content.sections[0]!.id
    await makeEdit(db, maren, id, 0, 'maren.1', addRow(section, 'q-datum'), day)
    expect(await makeEdit(db, maren, id, 0, 'maren.1', addRow(section, 'q-datum'), day)).toMatchObject({ revision: 1 })
    expect(await editsSince(db, id, 0)).toHaveLength(1)
  })
  it('twenty edits at once all stand', async () => {
    const id = await createQuiz(db, maren, 'Crowd', day)
    const section = (await loadQuiz(db, id)).quiz.content.sections[0]!.id
    const questions = await db.rows<{ id: string }>('SELECT id FROM question LIMIT 20')
    await Promise.all(
      questions.map(({ id: question }, i) =>
        makeEdit(db, i % 2 ? maren : idris, id, 0, `page${i}.1`, addRow(section, question), day),
      ),
    )
    expect((await loadQuiz(db, id)).quiz.content.sections[0]!.rows).toHaveLength(20)
  })
  it('refuses questions that are not in the bank', async () => {
    const id = await createQuiz(db, maren, 'Stranger', day)
    const section = (await loadQuiz(db, id)).quiz.content.sections[0]!.id
    await expect(makeEdit(db, maren, id, 0, 'maren.1', addRow(section, 'q-of-others'), day)).rejects.toMatchObject({
      status: 422,
    })
  })
})

describe('opening', () => {
  it('is refused while something stops it, each with its sentence', async () => {
    const id = await createQuiz(db, maren, 'Empty', day)
    await expect(openQuiz(db, maren, id, day)).rejects.toMatchObject({
      status: 422,
      more: {
        checks: [expect.objectContaining({ code: 'no-questions' }), expect.objectContaining({ code: 'no-window' })],
      },
    })
  })
  it('freezes the content; rules stay living; a change of content needs a new edition', async () => {
    const id = await openedQuiz(db, 'frozen')
    await expect(openQuiz(db, maren, id, later(1))).rejects.toMatchObject({ status: 409 })
    const { revision } = await loadQuiz(db, id)
    await makeEdit(db, maren, id, revision, 'maren.8', { do: 'setRules', values: { grace: 5 } }, later(2))
    await expect(openQuiz(db, maren, id, later(3))).rejects.toMatchObject({ status: 409 })
    await makeEdit(db, maren, id, revision + 1, 'maren.9', { do: 'setContent', values: { title: 'Renamed' } }, later(4))
    expect(await openQuiz(db, maren, id, later(5))).toEqual({ edition: 2 })
    const titles = await db.rows<{ body: string }>('SELECT body FROM edition WHERE quiz_id = ? ORDER BY number', [id])
    expect(titles.map(({ body }) => (JSON.parse(body) as { content: { title: string } }).content.title)).toEqual([
      'Quiz frozen',
      'Renamed',
    ])
  })
  it('moves between states only where the machine allows', async () => {
    const id = await openedQuiz(db, 'states')
    await setQuizState(db, maren, id, 'withdrawn', later(1))
    await setQuizState(db, maren, id, 'published', later(2))
    const draft = await createQuiz(db, maren, 'Still a draft', day)
    await expect(setQuizState(db, maren, draft, 'withdrawn', day)).rejects.toMatchObject({ status: 409 })
  })
})

describe('the bank', () => {
  it('a change makes a new version; a stale one is refused, and nothing is lost', async () => {
    const { id } = await addQuestion(db, maren, sampleQuestion('number'), day)
    const changed = { ...sampleQuestion('number'), points: 3 }
    expect(await reviseQuestion(db, idris, id, 1, changed, later(1))).toMatchObject({ version: 2 })
    await expect(reviseQuestion(db, maren, id, 1, changed, later(2))).rejects.toMatchObject({
      status: 409,
      sentence: expect.stringContaining('Idris Quayle'),
    })
    expect((await loadQuestion(db, maren, id, 1)).question.points).toBe(1)
    expect((await loadQuestion(db, maren, id)).versions.map((each) => each.version)).toEqual([2, 1])
  })
  it('keeps one that cannot be marked yet as “in work”', async () => {
    expect(await addQuestion(db, maren, { ...sampleQuestion('choice'), stem: '' }, day)).toMatchObject({
      state: 'work',
    })
  })
  it('finds by beginnings of words, short ones too, and counts the filters', async () => {
    const find = (query: object) => searchQuestions(db, maren, searchQuery.parse(query))
    expect((await find({ words: 'hw' })).total).toBeGreaterThan(0)
    const both = (await find({ words: 'TWELF rang' })).hits.map((hit) => hit.id)
    expect(both).toContain('q-twelfths-3')
    expect(both).not.toContain('q-range')
    const narrow = await find({ kind: 'number', objective: 'obj-1', difficulty: '4,5' })
    expect(narrow.hits.length).toBeGreaterThan(0)
    expect(
      narrow.hits.every(
        (hit) =>
          hit.kind === 'number' && hit.difficulty >= 4 && hit.objectives.some((each) => each.startsWith('obj-1')),
      ),
    ).toBe(true)
    expect(narrow.counts.kind.number).toBe(narrow.total)
    // Signs that SQL gives a meaning to have none here.
    expect((await find({ words: '%_\\' })).total).toBe((await find({})).total)
    expect((await find({ words: 'zz%' })).total).toBe(0)
  })
  it('cleans HTML and renders maths; a fault in TeX is told', () => {
    const evil = {
      ...sampleQuestion('text'),
      stem: '<p onclick="x()">Hi<script>alert(1)</script><img src="https://elsewhere.example/x.png" alt="x"><a href="javascript:x">l</a><span data-type="inline-math" data-latex="\\frac{1}{2}"></span></p>',
    }
    const { stem } = previewQuestion(evil, undefined)
    expect(stem).not.toMatch(/script|onclick|elsewhere/)
    expect(stem).toMatch(/katex/)
    expect(() =>
      previewQuestion(
        { ...evil, stem: '<p><span data-type="inline-math" data-latex="\\frac{1"></span></p>' },
        undefined,
      ),
    ).toThrow(/cannot be read/)
  })
})

describe('migrations', () => {
  it('can be run again, and are run once', async () => {
    expect(await migrate(db)).toEqual([])
    await db.run('DELETE FROM migration')
    expect(await migrate(db)).toContain('0001-foundation.sql')
  })
  it('are split at semicolons that end a line', () => {
    expect(statements("-- words; here\nCREATE TABLE a (x INT);\nINSERT INTO a VALUES ('a;b');\n")).toEqual([
      'CREATE TABLE a (x INT)',
      "INSERT INTO a VALUES ('a;b')",
    ])
  })
})
