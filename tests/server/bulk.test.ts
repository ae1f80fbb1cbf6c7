/** Many questions changed in one go: what is decided for one is decided for many, and only what still stands so is taken back. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { blankQuestion, type KindName, type Question } from '../../core/question'
import type { Database } from '../../server/database/database'
import { changeMany, undoMany } from '../../server/domain/bank/questions/bulk'
import { addFolder } from '../../server/domain/bank/describing/folders'
import { setKeeping } from '../../server/domain/bank/questions/keeping'
import { insertVersions } from '../../server/domain/bank/questions/rows'
import {
  addQuestion,
  loadQuestion,
  reviseQuestion,
  setQuestionState,
} from '../../server/domain/bank/questions/questions'
import { searchQuery, searchQuestions } from '../../server/domain/bank/finding/search'
import type { Person } from '../../server/people/people'
import { freshDatabase, person } from '../support/database'
import { day, later } from '../support/quiz'

let db: Database
let maren: Person
let idris: Person
beforeAll(async () => {
  db = (await freshDatabase('bulk', day)).db
  ;[maren, idris] = [await person(db, 'p-maren'), await person(db, 'p-idris')]
})
afterAll(() => db.close())

/** A question that can be marked, of a kind. */
async function add(stem: string, kind: KindName = 'short'): Promise<string> {
  const question = { ...blankQuestion(kind), stem: `<p>${stem}</p>` } as Question
  return (await addQuestion(db, maren, question, later(1))).id
}
const stateOf = async (id: string) => (await loadQuestion(db, maren, id)).state
const tagsOf = async (id: string) => (await loadQuestion(db, maren, id)).question.tags
const change = (questions: string[], by: Parameters<typeof changeMany>[2]['change'], minutes = 5) =>
  changeMany(db, maren, { questions, change: by }, later(minutes))

describe('states', () => {
  it('many come back to what each can be: marked by hand and usable, or in work', async () => {
    const [byHand, unfinished] = [await add('Describe a reef.', 'written'), await add('', 'choice')]
    await change([byHand, unfinished], { do: 'state', retired: true })
    expect([await stateOf(byHand), await stateOf(unfinished)]).toEqual(['retired', 'retired'])
    expect(await change([byHand, unfinished], { do: 'state', retired: false }, 6)).toMatchObject({ changed: 2 })
    expect([await stateOf(byHand), await stateOf(unfinished)]).toEqual(['usable', 'work'])
  })
  it('what is retired stays retired when it is revised, by one or by many', async () => {
    const id = await add('An old question of the lead line')
    await setQuestionState(db, maren, id, true, later(2))
    const { question } = await loadQuestion(db, maren, id)
    await reviseQuestion(db, maren, id, 1, { ...question, source: 'Log book' }, later(3))
    await change([id], { do: 'tag', add: ['lead'], remove: [] })
    expect(await stateOf(id)).toBe('retired')
    expect((await loadQuestion(db, maren, id)).version).toBe(3)
  })
  it('taking a retirement back leaves alone what a colleague has brought back', async () => {
    const [a, b] = [await add('One of two to retire'), await add('Two of two to retire')]
    const made = await change([a, b], { do: 'state', retired: true })
    await setQuestionState(db, idris, a, false, later(6))
    await setQuestionState(db, idris, a, true, later(7))
    await setQuestionState(db, idris, b, false, later(7))
    expect(await undoMany(db, maren, made.change, later(8))).toEqual({ undone: 1, kept: 1 })
    expect([await stateOf(a), await stateOf(b)]).toEqual(['usable', 'usable'])
  })
})

describe('folders', () => {
  it('taking a move back leaves where it is what has been moved on since', async () => {
    const [a, b] = [await add('First to be moved'), await add('Second to be moved')]
    const [here, there] = [
      await addFolder(db, maren, { name: 'Here', parent: null }),
      await addFolder(db, maren, { name: 'There', parent: null }),
    ]
    const made = await change([a, b], { do: 'move', folder: here.id })
    await setKeeping(db, idris, b, { folder: there.id }, later(6))
    expect(await undoMany(db, maren, made.change, later(7))).toEqual({ undone: 1, kept: 1 })
    expect((await loadQuestion(db, maren, a)).folder).toBeNull()
    expect((await loadQuestion(db, maren, b)).folder).toBe(there.id)
    const found = await searchQuestions(db, maren, searchQuery.parse({ folder: [there.id] }))
    expect(found.hits.map((hit) => hit.id)).toEqual([b])
  })
  it('a folder of nobody is refused, and nothing is moved', async () => {
    const id = await add('Stays where it is')
    await expect(change([id], { do: 'move', folder: 'f-nowhere' })).rejects.toMatchObject({ status: 404 })
    expect((await loadQuestion(db, maren, id)).folder).toBeNull()
  })
})

describe('versions of many', () => {
  it('each gets its own next version; what a colleague has revised since keeps that when it is taken back', async () => {
    const ids = await Promise.all(['alpha', 'bravo', 'charlie'].map((word) => add(`Flag ${word} means what?`)))
    const made = await change(ids, { do: 'tag', add: ['flags'], remove: [] })
    expect(made).toMatchObject({ changed: 3, refused: 0 })
    const { question } = await loadQuestion(db, idris, ids[1]!)
    await reviseQuestion(db, idris, ids[1]!, 2, { ...question, tags: ['flags', 'signals'] }, later(6))
    expect(await undoMany(db, maren, made.change, later(7))).toEqual({ undone: 2, kept: 1 })
    expect(await Promise.all(ids.map(tagsOf))).toEqual([[], ['flags', 'signals'], []])
    await expect(undoMany(db, maren, made.change, later(8))).rejects.toMatchObject({ status: 409 })
    await expect(undoMany(db, idris, made.change, later(8))).rejects.toMatchObject({ status: 404 })
  })
  it('those made on a version that is not the newest are left out, whoever is first', async () => {
    const [a, b] = [await add('On its newest version'), await add('Revised in between')]
    const [first, second] = [await loadQuestion(db, maren, a), await loadQuestion(db, maren, b)]
    await reviseQuestion(db, idris, b, 1, { ...second.question, points: 3 }, later(2))
    const revisions = [first, second].map(({ id, question }) => ({ id, on: 1, question: { ...question, points: 2 } }))
    const kept = await db.transaction((tx) => insertVersions(tx, maren, revisions, later(3)))
    expect([...kept]).toEqual([a])
    expect((await loadQuestion(db, maren, b)).question.points).toBe(3)
  })
  it('two at once make one next version, not two', async () => {
    const id = await add('Contended by two teachers')
    const { question } = await loadQuestion(db, maren, id)
    const revise = (who: Person, points: number) =>
      db.transaction((tx) => insertVersions(tx, who, [{ id, on: 1, question: { ...question, points } }], later(4)))
    const kept = await Promise.all([revise(maren, 2), revise(idris, 3)])
    expect(kept.map((each) => each.size).sort()).toEqual([0, 1])
    expect((await loadQuestion(db, maren, id)).versions).toHaveLength(2)
  })
  it('leaves a line in the record for each', async () => {
    const ids = await Promise.all(['one', 'two'].map((word) => add(`Recorded ${word}`)))
    await change(ids, { do: 'points', points: 4 })
    const lines = await db.rows("SELECT 1 FROM record WHERE what = 'question revised' AND subject IN (?)", [ids])
    expect(lines).toHaveLength(2)
  })
})
