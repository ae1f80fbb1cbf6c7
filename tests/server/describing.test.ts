import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { noVocabulary } from '../../core/question/vocabulary'
import type { Database } from '../../server/database/database'
import {
  addObjective,
  changeObjective,
  giveObjectives,
  importObjectives,
  listObjectives,
  lookAtObjectives,
  removeObjective,
} from '../../server/domain/bank/describing/objectives'
import { addQuestion } from '../../server/domain/bank/questions/questions'
import { keepVocabulary, loadVocabulary } from '../../server/domain/bank/describing/vocabulary'
import { searchQuery, searchQuestions } from '../../server/domain/bank/finding/search'
import type { Person } from '../../server/people/people'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, later } from '../support/quiz'

let db: Database
let maren: Person
beforeAll(async () => {
  db = (await freshDatabase('describing', day)).db
  maren = await person(db, 'p-maren')
})
afterAll(() => db.close())

const body = (code: string, title: string, over: object = {}) => ({
  code,
  title,
  parent: null,
  essential: false,
  needs: [],
  ...over,
})
const lines = (text: string) => Buffer.from(text)
const codes = async () => (await listObjectives(db, maren)).map((each) => each.code)
const search = (query: object) => searchQuestions(db, maren, searchQuery.parse(query))

describe('objectives', () => {
  it('stand as a tree, 8.10 after 8.9; they may be essential and need others first', async () => {
    const { id } = await addObjective(db, maren, body('8', 'Ropework'), later(1))
    for (const n of [10, 9, 1])
      await addObjective(
        db,
        maren,
        body(`8.${n}`, `Knot ${n}`, { parent: id, essential: n === 9, needs: n === 10 ? ['obj-7'] : [] }),
        later(1),
      )
    expect((await codes()).slice(-4)).toEqual(['8', '8.1', '8.9', '8.10'])
    expect((await listObjectives(db, maren)).at(-1)).toMatchObject({ essential: false, needs: ['obj-7'] })
  })
  it('never lie within themselves, nor need themselves by way of others', async () => {
    const [a, b] = [
      await addObjective(db, maren, body('9', 'A'), later(2)),
      await addObjective(db, maren, body('9.1', 'B'), later(2)),
    ]
    await changeObjective(db, maren, b.id, body('9.1', 'B', { parent: a.id, needs: [a.id] }), later(3))
    await expect(changeObjective(db, maren, a.id, body('9', 'A', { parent: b.id }), later(3))).rejects.toMatchObject({
      status: 422,
    })
    await expect(changeObjective(db, maren, a.id, body('9', 'A', { needs: [b.id] }), later(3))).rejects.toMatchObject({
      status: 422,
    })
    await expect(addObjective(db, maren, body('x', 'X', { parent: 'gone' }), later(3))).rejects.toMatchObject({
      status: 422,
    })
    await expect(removeObjective(db, maren, a.id, later(3))).rejects.toMatchObject({ status: 409 })
    await removeObjective(db, maren, b.id, later(3))
    await removeObjective(db, maren, a.id, later(3))
  })
  it('renamed, their questions are found by the new words; with questions they stay', async () => {
    const { id } = await addObjective(db, maren, body('11', 'Splicing'), later(4))
    await addQuestion(db, maren, sampleQuestion('choice', { objectives: [id] }), later(4))
    await changeObjective(db, maren, id, body('11', 'Whipping and seizing'), later(5))
    expect([(await search({ words: 'seizing' })).total, (await search({ words: 'splicing' })).total]).toEqual([1, 0])
    await expect(removeObjective(db, maren, id, later(6))).rejects.toMatchObject({
      status: 409,
      sentence: expect.stringMatching(/^1 question has/) as string,
    })
  })
  it('come in from a file: shown first, all or nothing; a second time they are known again', async () => {
    const csv = lines(
      'code,title,parent,essential,needs\n20,Engines,,,\n20.1,Starts it,20,yes,\n20.2,Stops it,20,,20.1\n1.1,"Levels, and datums",1,,\n1,Tides and tidal heights,,,\n',
    )
    expect((await lookAtObjectives(db, maren, csv)).map((each) => [each.code, each.depth, each.fate])).toEqual([
      ['20', 0, 'new'],
      ['20.1', 1, 'new'],
      ['20.2', 1, 'new'],
      ['1', 0, 'same'],
      ['1.1', 1, 'changed'],
    ])
    expect(await codes()).not.toContain('20')
    expect(await importObjectives(db, maren, csv, later(7))).toEqual({ added: 3, changed: 1 })
    const found = await listObjectives(db, maren)
    expect(found.find((each) => each.code === '20.1')).toMatchObject({ essential: true })
    expect(found.find((each) => each.code === '20.2')!.needs).toEqual([found.find((each) => each.code === '20.1')!.id])
    // Its questions come along: the objective is the same one.
    expect((await search({ words: 'datums', objective: 'obj-1-1' })).total).toBeGreaterThan(3)
    expect((await lookAtObjectives(db, maren, csv)).filter((each) => each.fate === 'new')).toEqual([])
    await expect(
      importObjectives(db, maren, lines('code,title,needs\n20.1,Starts it,20.2\n20.2,Stops it,20.1'), later(8)),
    ).rejects.toMatchObject({ status: 422 })
    await expect(importObjectives(db, maren, lines('code\n1'), later(8))).rejects.toMatchObject({ status: 422 })
  })
  it.each(['case', 'csv'] as const)('go out as %s, and the same file changes nothing', async (as) => {
    const { text } = await giveObjectives(db, maren, as, later(9))
    const before = await listObjectives(db, maren)
    expect(
      new Set(
        (await lookAtObjectives(db, maren, lines(text)))
          .filter((each) => !before.find((one) => one.code === each.code)?.essential || as === 'case')
          .map((each) => each.fate),
      ),
    ).toEqual(new Set(['same']))
    await importObjectives(db, maren, lines(text), later(10))
    expect(await listObjectives(db, maren)).toEqual(before)
  })
})

describe('the school’s own words', () => {
  it('are kept with a revision: a stale change overwrites nothing', async () => {
    const { revision, words } = await loadVocabulary(db, maren)
    expect(words.schemes.map((scheme) => scheme.name)).toEqual(['Taxonomy', 'Cognitive depth'])
    await keepVocabulary(db, maren, revision, { ...words, grades: ['Year 9'] })
    await expect(keepVocabulary(db, maren, revision, noVocabulary)).rejects.toMatchObject({ status: 409 })
    expect((await loadVocabulary(db, maren)).words.grades).toEqual(['Year 9'])
  })
  it('levels and grades filter the bank, with their counts', async () => {
    await addQuestion(
      db,
      maren,
      sampleQuestion('text', {
        stem: '<p>Graded seacock</p>',
        levels: { depth: 'v2' },
        grade: 'Year 9',
        fields: { chart: 'plotting sheet nine' },
      }),
      later(1),
    )
    const [all, narrow] = [await search({}), await search({ level: 'depth:v2', grade: 'year 9' })]
    expect(all.counts.level['taxonomy:v2']).toBeGreaterThan(5)
    expect(all.counts.grade).toEqual({ 'Year 9': 1 })
    expect(narrow.hits.map((hit) => hit.title)).toEqual(['Graded seacock'])
    expect((await search({ level: 'depth:v3' })).total).toBe(0)
    expect((await search({ words: 'plotting nine' })).total).toBe(1)
  })
})
