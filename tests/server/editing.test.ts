import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addRows, applyEdit, removeRow, setAt, type Edit } from '../../core/quiz'
import { toJson, toSql } from '../../server/database/codec'
import type { Database } from '../../server/database/database'
import { migrate, statements } from '../../server/database/migrate'
import { addQuestion, loadQuestion, reviseQuestion } from '../../server/domain/bank/questions/questions'
import { searchQuery, searchQuestions } from '../../server/domain/bank/finding/search'
import { previewQuestion } from '../../server/domain/bank/questions/preview'
import { changesSince, makeEdit } from '../../server/domain/quizzes/edits'
import { mostToReplay } from '../../server/domain/quizzes/history'
import { openQuiz, setQuizState } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import type { Person } from '../../server/people/people'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz, rulesEdit } from '../support/quiz'

let db: Database
let maren: Person
let idris: Person
beforeAll(async () => {
  db = (await freshDatabase('editing', day)).db
  maren = await person(db, 'p-maren')
  idris = await person(db, 'p-idris')
})
afterAll(() => db.close())

const addRow = (section: string, question: string): Edit =>
  addRows(section, null, [{ type: 'question', id: `r-${question}`, question, points: 1, fixed: false }])
/** A quiz of Maren's that Idris teaches too. */
async function shared(title: string): Promise<string> {
  const id = await createQuiz(db, maren, title, day)
  await db.run('INSERT INTO quiz_teacher (quiz_id, person_id) VALUES (?, ?)', [id, idris.id])
  return id
}
const limit = (was: number, value: number): Edit => ({ do: 'set', path: ['rules', 'limit'], was, value })

describe('two teachers in one quiz', () => {
  it('edits to different things both stand; both pages end with the same quiz', async () => {
    const id = await shared('Together')
    const start = (await loadQuiz(db, id)).quiz
    const section = start.content.sections[0]!.id
    await makeEdit(db, maren, id, 0, 'maren.1', addRow(section, 'q-datum'), day)
    const reply = await makeEdit(db, idris, id, 0, 'idris.1', limit(45, 30), day)
    expect(reply.since!.map((each) => each.byName)).toEqual(['Maren Holt', 'Idris Quayle'])
    const replayed = reply.since!.reduce((quiz, { edit }) => applyEdit(quiz, edit).quiz, start)
    expect(replayed).toEqual((await loadQuiz(db, id)).quiz)
  })
  it('an edit that finds another value is refused, with who put it there; nothing is changed', async () => {
    const id = await shared('Clash')
    await makeEdit(db, maren, id, 0, 'maren.1', limit(45, 30), day)
    await expect(makeEdit(db, idris, id, 0, 'idris.1', limit(45, 50), day)).rejects.toMatchObject({
      status: 409,
      sentence: expect.stringContaining('Maren Holt'),
      more: { by: 'Maren Holt', gone: false },
    })
    expect((await loadQuiz(db, id)).quiz.rules.limit).toBe(30)
    // A page's own earlier edit is no conflict, even when it has not heard of it yet.
    await makeEdit(db, maren, id, 0, 'maren.2', limit(30, 40), day)
    expect((await loadQuiz(db, id)).quiz.rules.limit).toBe(40)
  })
  it('undo is refused once a colleague has set the same thing, however many edits lie between', async () => {
    const id = await shared('Undo')
    const { quiz } = await loadQuiz(db, id)
    await makeEdit(db, maren, id, 0, 'maren.1', limit(45, 60), day)
    await makeEdit(db, idris, id, 1, 'idris.1', limit(60, 90), day)
    const row = (i: number) => ({ type: 'text' as const, id: `t${i}`, html: `<p>${i}</p>` })
    for (let i = 0; i < 12; i++)
      await makeEdit(db, maren, id, 2 + i, `maren.t${i}`, addRows(quiz.content.sections[0]!.id, null, [row(i)]), day)
    await expect(makeEdit(db, maren, id, 14, 'maren.2', limit(60, 45), day)).rejects.toMatchObject({
      status: 409,
      sentence: 'Idris Quayle has changed the same thing in the meantime.',
    })
    expect((await loadQuiz(db, id)).quiz.rules.limit).toBe(90)
  })
  it('what a colleague has taken out is said so, with who', async () => {
    const id = await shared('Gone')
    const section = (await loadQuiz(db, id)).quiz.content.sections[0]!.id
    await makeEdit(db, maren, id, 0, 'maren.1', addRow(section, 'q-datum'), day)
    await makeEdit(db, idris, id, 1, 'idris.1', removeRow((await loadQuiz(db, id)).quiz, 'r-q-datum'), day)
    await expect(
      makeEdit(
        db,
        maren,
        id,
        1,
        'maren.2',
        { do: 'set', path: ['rows', 'r-q-datum', 'points'], was: 1, value: 2 },
        day,
      ),
    ).rejects.toMatchObject({
      status: 409,
      sentence: expect.stringMatching(/^Idris Quayle has taken this out/) as string,
    })
  })
  it('a page that is far behind gets the whole quiz, and so does one that meets an edit of an earlier release', async () => {
    const id = await createQuiz(db, maren, 'Behind', day)
    const section = (await loadQuiz(db, id)).quiz.content.sections[0]!.id
    await makeEdit(db, maren, id, 0, 'maren.1', addRow(section, 'q-datum'), day)
    const many = Array.from({ length: mostToReplay }, (_, i) => [
      id,
      i + 2,
      `many.${i}`,
      maren.id,
      toSql(day),
      toJson(limit(45, 45)),
    ])
    await db.run('INSERT INTO quiz_edit (quiz_id, revision, token, made_by, made_at, body) VALUES ?', [many])
    await db.run('UPDATE quiz SET revision = ? WHERE id = ?', [mostToReplay + 1, id])
    expect(await changesSince(db, id, 0)).toMatchObject({
      since: null,
      revision: mostToReplay + 1,
      quiz: { content: { title: 'Behind' } },
    })
    expect((await changesSince(db, id, 1)).since).toHaveLength(mostToReplay)
    await db.run('UPDATE quiz_edit SET body = ? WHERE quiz_id = ? AND revision = 5', [
      toJson({ do: 'setRules', values: { limit: 3 } }),
      id,
    ])
    expect(await changesSince(db, id, 3)).toMatchObject({ since: null })
    expect((await changesSince(db, id, 5)).since).toHaveLength(mostToReplay - 4)
  })
  it('a private question of a colleague does not come in by having been named in a text', async () => {
    const id = await shared('Named')
    const { quiz } = await loadQuiz(db, id)
    const hidden = await addQuestion(db, idris, sampleQuestion('choice'), day, undefined, {
      folder: null,
      sharing: 'private',
    })
    await makeEdit(db, maren, id, 0, 'maren.1', setAt(quiz, ['content', 'title'], hidden.id), day)
    await expect(
      makeEdit(db, maren, id, 1, 'maren.2', addRow(quiz.content.sections[0]!.id, hidden.id), day),
    ).rejects.toMatchObject({ status: 422 })
    // A colleague who may see it puts it in; whoever takes it out can bring it back.
    await makeEdit(db, idris, id, 1, 'idris.1', addRow(quiz.content.sections[0]!.id, hidden.id), day)
    const held = (await loadQuiz(db, id)).quiz
    const out = removeRow(held, `r-${hidden.id}`)
    await makeEdit(db, maren, id, 2, 'maren.3', out, day)
    await makeEdit(db, maren, id, 3, 'maren.4', applyEdit(held, out).inverse, day)
    expect((await loadQuiz(db, id)).quiz).toEqual(held)
  })
  it('a save that is sent again is the same save', async () => {
    const id = await createQuiz(db, maren, 'Again', day)
    const section = (await loadQuiz(db, id)).quiz.content.sections[0]!.id
    await makeEdit(db, maren, id, 0, 'maren.1', addRow(section, 'q-datum'), day)
    expect(await makeEdit(db, maren, id, 0, 'maren.1', addRow(section, 'q-datum'), day)).toMatchObject({ revision: 1 })
    expect((await changesSince(db, id, 0)).since).toHaveLength(1)
  })
  it('twenty edits at once all stand', async () => {
    const id = await shared('Crowd')
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
    await makeEdit(db, maren, id, revision, 'maren.8', await rulesEdit(db, id, { grace: 5 }), later(2))
    await expect(openQuiz(db, maren, id, later(3))).rejects.toMatchObject({ status: 409 })
    await makeEdit(
      db,
      maren,
      id,
      revision + 1,
      'maren.9',
      setAt((await loadQuiz(db, id)).quiz, ['content', 'title'], 'Renamed'),
      later(4),
    )
    const line = await db.one<{ detail: string }>(
      "SELECT detail FROM record WHERE subject = ? AND what = 'rules changed'",
      [id],
    )
    expect(JSON.parse(line!.detail)).toMatchObject({ changes: ['grace 1 → 5 minutes'] })
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
