import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { blankBlueprint, type Blueprint } from '../../core/blueprint'
import { sampleQuestion } from '../fixtures/core'
import type { Database } from '../../server/database/database'
import { addQuestion, reviseQuestion } from '../../server/domain/bank/questions/questions'
import { hitsFor } from '../../server/domain/bank/finding/hits'
import { changeBlueprint, dropBlueprint, keepBlueprint, listBlueprints } from '../../server/domain/blueprints/keep'
import { scope } from '../../server/domain/blueprints/candidates'
import { proposeFor, sortsIn } from '../../server/domain/blueprints/propose'
import { judgesOf, rate } from '../../server/domain/quizzes/ratings'
import { lookAtChecks, setAside } from '../../server/domain/quizzes/checks'
import { copyQuiz } from '../../server/domain/quizzes/copy'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { createQuiz, loadQuiz, shareQuiz, unshareQuiz } from '../../server/domain/quizzes/quizzes'
import { addRows, questionsUsed } from '../../core/quiz'
import type { Person } from '../../server/people/people'
import { freshDatabase, person } from '../support/database'
import { day } from '../support/quiz'

let db: Database
let maren: Person
let idris: Person
beforeAll(async () => {
  db = (await freshDatabase('composing', day)).db
  maren = await person(db, 'p-maren')
  idris = await person(db, 'p-idris')
})
afterAll(() => db.close())

/** A quiz of Maren's with these questions. */
async function quizWith(title: string, questions: string[]): Promise<string> {
  const id = await createQuiz(db, maren, title, day)
  const section = (await loadQuiz(db, id)).quiz.content.sections[0]!.id
  const rows = questions.map((question) => ({
    type: 'question' as const,
    id: `r-${question}`,
    question,
    points: 1,
    fixed: false,
  }))
  if (rows.length) await makeEdit(db, maren, id, 0, 'test.1', addRows(section, null, rows), day)
  return id
}
const emailOf = async ({ id }: Person) =>
  (await db.one<{ email: string }>('SELECT email FROM person WHERE id = ?', [id]))!.email
const whole = scope.parse({})
const line = (atLeast: number, over: Partial<Blueprint['cells'][number]> = {}) => ({
  id: 'l1',
  objective: null,
  kind: null,
  difficulty: null,
  level: null,
  count: { atLeast, atMost: atLeast },
  ...over,
})
const asked = (over: Partial<Blueprint>): Blueprint => ({ ...blankBlueprint('Asked'), ...over })

describe('what figures know of a question', () => {
  it('is of its newest version', async () => {
    const { id } = await addQuestion(db, maren, sampleQuestion('choice'), day)
    const [before] = await hitsFor(db, maren, [id])
    expect(before!.guesses.reduce((all, { chance }) => all + chance, 0)).toBeCloseTo(1, 9)
    expect(before!.options).toBeGreaterThan(1)
    await reviseQuestion(db, maren, id, 1, sampleQuestion('number'), day)
    const [after] = await hitsFor(db, maren, [id])
    expect(after).toMatchObject({ guesses: [{ value: '0', chance: 1 }], options: null })
  })
})

describe('judges of a pass mark', () => {
  it('rate by themselves; each changes and takes back their own', async () => {
    const id = await quizWith('Judged', ['q-datum', 'q-cover'])
    await shareQuiz(db, maren, id, { email: await emailOf(idris) }, day)
    await rate(db, maren, id, { 'q-datum': 0.9, 'q-cover': 0.5 }, day)
    await rate(db, idris, id, { 'q-datum': 0.7 }, day)
    await rate(db, maren, id, { 'q-cover': null }, day)
    const judges = await judgesOf(db, maren, id)
    expect(judges.map(({ name, mine, ratings }) => ({ name, mine, ratings }))).toEqual([
      { name: 'Maren Holt', mine: true, ratings: [['q-datum', 0.9]] },
      { name: 'Idris Quayle', mine: false, ratings: [['q-datum', 0.7]] },
    ])
  })
  it('are those who teach the quiz, of questions that are in it', async () => {
    const id = await quizWith('Not theirs', ['q-datum'])
    await expect(rate(db, idris, id, { 'q-datum': 0.5 }, day)).rejects.toMatchObject({ status: 404 })
    await expect(rate(db, maren, id, { 'q-cover': 0.5 }, day)).rejects.toMatchObject({ status: 422 })
    await shareQuiz(db, maren, id, { email: await emailOf(idris) }, day)
    await rate(db, idris, id, { 'q-datum': 0.5 }, day)
    await unshareQuiz(db, maren, id, idris.id, day)
    await expect(rate(db, idris, id, { 'q-datum': 0.6 }, day)).rejects.toMatchObject({ status: 404 })
  })
})

describe('a proposal', () => {
  it('holds what a person may see and use, and nothing that the quiz has already', async () => {
    const hidden = await addQuestion(db, idris, sampleQuestion('recording'), day, undefined, {
      folder: null,
      sharing: 'private',
    })
    const open = await addQuestion(db, idris, sampleQuestion('recording'), day)
    const id = await quizWith('Filled', [])
    const recordings = asked({ cells: [line(100, { kind: 'recording' })] })
    const find = () => proposeFor(db, maren, id, { blueprint: recordings, within: whole, seed: null }, day)
    const first = await find()
    expect(first.forms[0]).toContain(open.id)
    expect(first.forms[0]).not.toContain(hidden.id)
    expect(first.questions.map((hit) => hit.id).sort()).toEqual([...first.forms[0]!].sort())
    const { sorts } = await sortsIn(db, maren, id, whole, day)
    const there = sorts.filter(({ kind }) => kind === 'recording').reduce((all, { n }) => all + n, 0)
    expect(there).toBe(first.forms[0]!.length)
    expect(first.shortfalls).toEqual([{ of: 'cell', cell: 'l1', form: 0, lacks: 100 - there }])
    const section = (await loadQuiz(db, id)).quiz.content.sections[0]!.id
    const row = { type: 'question' as const, id: 'r1', question: open.id, points: 1, fixed: false }
    await makeEdit(db, maren, id, 0, 'test.2', addRows(section, null, [row]), day)
    expect((await find()).forms[0]).not.toContain(open.id)
    const must = { ...recordings, must: [open.id] }
    const again = await proposeFor(db, maren, id, { blueprint: must, within: whole, seed: null }, day)
    expect(again.forms[0]).toContain(open.id)
    expect(again.missing).toEqual([])
  })
  it('asks for an objective and finds all that lie under it, and draws anew with another seed', async () => {
    const id = await quizWith('Under', [])
    const parents = await db.rows<{ id: string }>(
      'SELECT p.id FROM objective p JOIN objective c ON c.parent_id = p.id JOIN question_objective q ON q.objective_id = c.id WHERE p.school_id = ? GROUP BY p.id HAVING COUNT(*) > 12 LIMIT 1',
      [maren.school],
    )
    const blueprint = asked({ cells: [line(6, { objective: parents[0]!.id })] })
    const drawn = new Set<string>()
    for (const seed of [1, 2, 3]) {
      const { forms, shortfalls } = await proposeFor(db, maren, id, { blueprint, within: whole, seed }, day)
      expect(shortfalls).toEqual([])
      drawn.add([...forms[0]!].sort().join())
      const same = await proposeFor(db, maren, id, { blueprint, within: whole, seed }, day)
      expect(same.forms).toEqual(forms)
    }
    expect(drawn.size).toBe(3)
  })
  it('leaves out what was used since', async () => {
    const id = await quizWith('Unused', [])
    await db.run("UPDATE question SET last_used_at = '2030-05-01' WHERE kind = 'ordering'")
    const orderings = (unusedSince: string | null) =>
      proposeFor(
        db,
        maren,
        id,
        { blueprint: asked({ cells: [line(1, { kind: 'ordering' })], unusedSince }), within: whole, seed: null },
        day,
      )
    expect((await orderings(null)).shortfalls).toEqual([])
    expect((await orderings('2030-04-01T00:00:00.000Z')).shortfalls).toMatchObject([{ lacks: 1 }])
  })
})

describe('a copy of a quiz', () => {
  it('is one’s own and in draft; what the copier may not see does not come along', async () => {
    const hidden = await addQuestion(db, maren, sampleQuestion('choice'), day, undefined, {
      folder: null,
      sharing: 'private',
    })
    const id = await quizWith('Copied', ['q-datum', hidden.id])
    await expect(copyQuiz(db, idris, id, { title: 'Taken', withRules: true, days: 7 }, day)).rejects.toMatchObject({
      status: 404,
    })
    await shareQuiz(db, maren, id, { email: await emailOf(idris) }, day)
    const theirs = await copyQuiz(db, idris, id, { title: 'Theirs', withRules: true, days: 7 }, day)
    expect(theirs.leftOut).toBe(1)
    const copy = await loadQuiz(db, theirs.id)
    expect(copy).toMatchObject({ owner: 'p-idris', stored: 'draft', edition: null, revision: 0 })
    expect(questionsUsed(copy.quiz.content)).toEqual(['q-datum'])
    const mine = await copyQuiz(db, maren, id, { title: 'Mine', withRules: false, days: 0 }, day)
    expect(mine.leftOut).toBe(0)
    expect(questionsUsed((await loadQuiz(db, mine.id)).quiz.content)).toEqual(['q-datum', hidden.id])
  })
})

describe('a check that is set aside', () => {
  it('keeps the reason and who gave it, and is taken up again', async () => {
    const id = await quizWith('Aside', ['q-datum'])
    const codes = async () =>
      (await lookAtChecks(db, maren, id, '', day)).checks.map(({ code, level }) => ({ code, level }))
    const looks = (await codes()).filter(({ level }) => level === 'look')
    const stops = (await codes()).filter(({ level }) => level === 'stop')
    expect(stops.length).toBeGreaterThan(0)
    for (const { code } of [...looks, ...stops]) await setAside(db, maren, id, { code, reason: 'On purpose.' }, day)
    for (const check of (await lookAtChecks(db, maren, id, '', day)).checks)
      // What stops opening stops it, whatever somebody writes.
      expect(check.aside ?? null).toEqual(check.level === 'look' ? { reason: 'On purpose.', by: 'Maren Holt' } : null)
    for (const { code } of looks) await setAside(db, maren, id, { code, reason: null }, day)
    expect((await lookAtChecks(db, maren, id, '', day)).checks.some(({ aside }) => aside)).toBe(false)
    await expect(setAside(db, idris, id, { code: 'luck', reason: 'No.' }, day)).rejects.toMatchObject({ status: 404 })
  })
})

describe('blueprints that are kept', () => {
  it('are one’s own until they are shared, and changed by nobody else', async () => {
    const mine = await keepBlueprint(db, maren, { blueprint: asked({ title: 'Term' }), shared: false }, day)
    const seen = async (who: Person) => (await listBlueprints(db, who)).map(({ id }) => id)
    expect(await seen(maren)).toContain(mine.id)
    expect(await seen(idris)).not.toContain(mine.id)
    const theirs = changeBlueprint(db, idris, mine.id, { blueprint: asked({ title: 'Taken' }), shared: true }, day)
    await expect(theirs).rejects.toMatchObject({ status: 404 })
    await expect(dropBlueprint(db, idris, mine.id)).rejects.toMatchObject({ status: 404 })
    await changeBlueprint(db, maren, mine.id, { blueprint: asked({ title: 'Term two' }), shared: true }, day)
    expect(await seen(idris)).toContain(mine.id)
    expect((await listBlueprints(db, idris)).find(({ id }) => id === mine.id)).toMatchObject({
      title: 'Term two',
      mine: false,
      owner: 'Maren Holt',
    })
    const gone = await dropBlueprint(db, maren, mine.id)
    expect(gone).toMatchObject({ shared: true, blueprint: { title: 'Term two' } })
    expect(await seen(maren)).not.toContain(mine.id)
  })
})
