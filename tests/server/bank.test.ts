import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { blankQuestion, type Question } from '../../core/question'
import type { Database } from '../../server/database/database'
import { changeMany, undoMany } from '../../server/domain/bank/questions/bulk'
import { addFolder, changeFolder, listFolders, removeFolder } from '../../server/domain/bank/describing/folders'
import { setKeeping, versionDifferences } from '../../server/domain/bank/questions/keeping'
import { nearDuplicates } from '../../server/domain/bank/finding/near'
import { reindexAll } from '../../server/domain/bank/questions/rows'
import { addQuestion, loadQuestion, reviseQuestion } from '../../server/domain/bank/questions/questions'
import { questionRecord } from '../../server/domain/bank/questions/track-record'
import { addRemark, answerRemark, listRemarks, openDoubts } from '../../server/domain/bank/questions/remarks'
import { dropSearch, saveSearch, savedSearches } from '../../server/domain/bank/finding/saved-searches'
import { searchQuery, searchQuestions } from '../../server/domain/bank/finding/search'
import type { Person } from '../../server/people/people'
import { freshDatabase, person } from '../support/database'
import { day, later } from '../support/quiz'

let db: Database
let maren: Person
let idris: Person
beforeAll(async () => {
  db = (await freshDatabase('bank', day)).db
  ;[maren, idris] = [await person(db, 'p-maren'), await person(db, 'p-idris')]
})
afterAll(() => db.close())

const search = (by: Person, query: Record<string, unknown>) =>
  searchQuestions(db, by, searchQuery.parse({ take: 200, ...query }))
const text = (stem: string, over: Partial<Question> = {}): Question =>
  ({
    ...blankQuestion('text'),
    stem: `<p>${stem}</p>`,
    body: { ...blankQuestion('text').body, answers: [{ how: 'is', text: 'ebb', credit: 1, comment: '' }] },
    ...over,
  }) as Question
const add = async (question: Question, by = maren) => (await addQuestion(db, by, question, later(1))).id

describe('searching', () => {
  it('finds beginnings of all words in stem, options, key and tags, whatever their accents and case', async () => {
    const id = await add(text('Zéphyr of the quiet harbour', { tags: ['lagoon'] }))
    for (const words of ['zephyr', 'ZEPH harb', 'lagoo', 'quiet ebb'])
      expect(
        (await search(maren, { words })).hits.map((hit) => hit.id),
        words,
      ).toEqual([id])
    expect((await search(maren, { words: 'zephyr storm' })).total).toBe(0)
  })
  it('counts are those of the other filters, and filters of several values add up', async () => {
    const all = await search(maren, {})
    const kinds = Object.entries(all.counts.kind)
    expect(kinds.reduce((sum, [, n]) => sum + n, 0)).toBe(all.total)
    for (const [kind, n] of kinds) expect((await search(maren, { kind: [kind] })).total, kind).toBe(n)
    const [first, second] = kinds.slice(0, 2) as [[string, number], [string, number]]
    const two = await search(maren, { kind: [first[0], second[0]], difficulty: ['2'] })
    expect(two.hits.every((hit) => hit.difficulty === 2 && [first[0], second[0]].includes(hit.kind))).toBe(true)
    expect(Object.keys(two.counts.kind).length).toBeGreaterThan(2)
    expect(two.counts.difficulty['2']).toBe(two.total)
  })
  it('an objective and a folder stand for all that lie under them', async () => {
    const parent = await search(maren, { objective: ['obj-1'] })
    const children = await Promise.all(
      ['obj-1-1', 'obj-1-2', 'obj-1-3'].map((id) => search(maren, { objective: [id] })),
    )
    expect(parent.total).toBe(new Set(children.flatMap((found) => found.hits.map((hit) => hit.id))).size)
    const inner = await addFolder(db, maren, { name: 'Neaps', parent: 'f-tides' })
    const id = await add(text('Something of neap tides in a folder'))
    await setKeeping(db, maren, id, { folder: inner.id }, later(2))
    expect((await search(maren, { folder: ['f-tides'], words: 'something neap' })).hits.map((hit) => hit.id)).toEqual([
      id,
    ])
    expect((await search(maren, { folder: [inner.id] })).total).toBe(1)
  })
  it('the quick and the walking way find the same, page by page', async () => {
    const all = await search(maren, { words: 't' })
    const pages = []
    for (let from = 0; from < all.total; from += 7)
      pages.push(...(await search(maren, { words: 't', from, take: 7 })).hits)
    expect(pages.map((hit) => hit.id)).toEqual(all.hits.slice(0, pages.length).map((hit) => hit.id))
    const times = all.hits.map((hit) => hit.changedAt)
    expect(times).toEqual([...times].sort().reverse())
  })
  it('wildcards of SQL are letters like any other', async () =>
    expect((await search(maren, { words: '%' })).total).toBe((await search(maren, {})).total))
  it('not used since: what no quiz has opened from then on', async () => {
    const unused = await search(maren, { unusedSince: later(-10 * 24 * 60) })
    expect(unused.hits.every((hit) => hit.lastUsedAt === null || hit.lastUsedAt < later(-10 * 24 * 60))).toBe(true)
    expect(unused.total).toBeLessThan((await search(maren, {})).total)
  })
  it('an index made anew finds the same', async () => {
    const before = (await search(maren, { words: 'tide', difficulty: ['2'] })).hits.map((hit) => hit.id)
    await reindexAll(db, 50)
    expect((await search(maren, { words: 'tide', difficulty: ['2'] })).hits.map((hit) => hit.id)).toEqual(before)
    expect((await search(maren, { folder: ['f-tides'] })).total).toBeGreaterThan(10)
  })
})

describe('who may see and change', () => {
  it('private, with named colleagues for reading or writing, with the school', async () => {
    const id = await add(text('A question about a hidden shoal'))
    const seen = async () => (await search(idris, { words: 'hidden shoal' })).total === 1
    const revise = async () =>
      reviseQuestion(
        db,
        idris,
        id,
        (await loadQuestion(db, maren, id)).version,
        text(`Changed ${Math.random()} hidden shoal`),
        later(3),
      ).then(
        () => 'kept',
        (error: { status: number }) => error.status,
      )
    expect([await seen(), await revise()]).toEqual([true, 'kept'])
    await setKeeping(db, maren, id, { sharing: 'private' }, later(3))
    expect([await seen(), await revise()]).toEqual([false, 404])
    await expect(loadQuestion(db, idris, id)).rejects.toMatchObject({ status: 404 })
    await setKeeping(
      db,
      maren,
      id,
      { sharing: 'named', shares: [{ email: 'idris.quayle@gannet.example', may: 'read' }] },
      later(4),
    )
    expect([await seen(), await revise()]).toEqual([true, 403])
    await setKeeping(db, maren, id, { shares: [{ email: 'idris.quayle@gannet.example', may: 'write' }] }, later(5))
    expect(await revise()).toBe('kept')
    await expect(setKeeping(db, idris, id, { sharing: 'school' }, later(6))).rejects.toMatchObject({ status: 403 })
    await expect(
      setKeeping(db, maren, id, { shares: [{ email: 'nobody@gannet.example', may: 'read' }] }, later(6)),
    ).rejects.toMatchObject({ status: 422 })
  })
})

describe('many at once', () => {
  it('changes what may be changed in one go, and takes it back', async () => {
    const own = await Promise.all(
      ['one', 'two', 'three'].map((word) => add(text(`Bulk question ${word} of the reef`, { tags: ['old'] }))),
    )
    const hidden = await add(text('Idris alone on the reef'), idris)
    await setKeeping(db, idris, hidden, { sharing: 'private' }, later(2))
    const done = await changeMany(
      db,
      maren,
      { questions: [...own, hidden], change: { do: 'tag', add: ['new'], remove: ['old'] } },
      later(3),
    )
    expect(done).toMatchObject({ changed: 3, refused: 1 })
    expect((await search(maren, { tag: ['new'] })).total).toBe(3)
    await reviseQuestion(db, maren, own[0]!, 2, text('Bulk question one, changed since'), later(4))
    expect(await undoMany(db, maren, done.change, later(5))).toEqual({ undone: 2, kept: 1 })
    expect((await search(maren, { tag: ['old'] })).total).toBe(2)
    expect((await loadQuestion(db, maren, own[0]!)).question.stem).toContain('changed since')
    await expect(undoMany(db, maren, done.change, later(6))).rejects.toMatchObject({ status: 409 })
  })
  it('moves, retires and brings back', async () => {
    const ids = [await add(text('Retire me by the pier')), await add(blankQuestion('choice'))]
    const retired = await changeMany(db, maren, { questions: ids, change: { do: 'state', retired: true } }, later(2))
    expect((await search(maren, { words: 'retire pier' })).total).toBe(0)
    expect(await undoMany(db, maren, retired.change, later(3))).toEqual({ undone: 2, kept: 0 })
    expect([(await loadQuestion(db, maren, ids[0]!)).state, (await loadQuestion(db, maren, ids[1]!)).state]).toEqual([
      'usable',
      'work',
    ])
    const moved = await changeMany(db, maren, { questions: ids, change: { do: 'move', folder: 'f-safety' } }, later(4))
    expect((await search(maren, { folder: ['f-safety'], words: 'pier' })).total).toBe(1)
    await undoMany(db, maren, moved.change, later(5))
    expect((await search(maren, { folder: ['f-safety'], words: 'pier' })).total).toBe(0)
  })
})

describe('folders', () => {
  it('never lie within themselves; what was in one goes up when it is taken away', async () => {
    const outer = await addFolder(db, maren, { name: 'Outer', parent: null })
    const inner = await addFolder(db, maren, { name: 'Inner', parent: outer.id })
    await expect(changeFolder(db, maren, outer.id, { parent: inner.id })).rejects.toMatchObject({ status: 422 })
    const id = await add(text('In the inner folder'))
    await setKeeping(db, maren, id, { folder: inner.id }, later(2))
    await removeFolder(db, maren, inner.id)
    expect((await loadQuestion(db, maren, id)).folder).toBe(outer.id)
    expect((await listFolders(db, maren)).map((folder) => folder.name)).not.toContain('Inner')
  })
})

describe('what colleagues say', () => {
  it('a doubt is seen before one takes a question, until it is answered', async () => {
    const id = await add(text('A doubtful depth'))
    await addRemark(db, idris, id, { words: 'Nice one.', doubt: false }, later(2))
    const { id: remark } = await addRemark(db, idris, id, { words: 'Is it not the flood?', doubt: true }, later(3))
    expect((await search(maren, { words: 'doubtful depth' })).hits[0]!.doubts).toBe(1)
    expect((await search(maren, { doubted: 'yes' })).hits.map((hit) => hit.id)).toEqual([id])
    // It reaches the owner, and nobody else's Today.
    expect([await openDoubts(db, maren), await openDoubts(db, idris)]).toEqual([
      [{ question: id, title: 'A doubtful depth', doubts: 1 }],
      [],
    ])
    await answerRemark(db, maren, id, remark, true, later(4))
    expect((await search(maren, { doubted: 'yes' })).total).toBe(0)
    expect(await openDoubts(db, maren)).toEqual([])
    expect(await listRemarks(db, maren, id)).toMatchObject([
      { words: 'Nice one.', doubt: false },
      { by: 'Idris Quayle', answeredBy: 'Maren Holt', answeredAt: later(4) },
    ])
  })
})

describe('near-duplicates, differences, records, saved searches', () => {
  it('the same stem but for numbers and spacing', async () => {
    const ids = [
      await add(text('A boat makes 5 knots for 3 hours; name the stream')),
      await add(text('A boat makes 6.5  knots for 12 hours ; name the stream')),
      await add(text('A boat makes way for hours')),
    ]
    const groups = await nearDuplicates(db, maren, ids[0])
    expect(groups.map((group) => group.map((hit) => hit.id).sort())).toEqual([[ids[0], ids[1]].sort()])
    expect((await nearDuplicates(db, maren)).flat().map((hit) => hit.id)).toEqual(
      expect.arrayContaining(ids.slice(0, 2)),
    )
  })
  it('versions differ in words, and an old one can be kept anew', async () => {
    const id = await add(text('The tide falls', { points: 1 }))
    await reviseQuestion(db, maren, id, 1, text('The tide rises', { points: 2 }), later(2))
    const found = await versionDifferences(db, maren, id, 1, 2)
    expect(found.find((each) => each.part === 'question')!.pieces).toEqual([
      { text: 'The tide ', was: true, is: true },
      { text: 'falls', was: true, is: false },
      { text: 'rises', was: false, is: true },
    ])
    expect(found.map((each) => each.part)).toEqual(['question', 'points'])
  })
  it('a record has facility and discrimination of first attempts, and the quizzes that hold the question', async () => {
    const [{ question }] = (await db.rows<{ question: string }>(
      "SELECT m.question_id AS question FROM mark m JOIN attempt a ON a.id = m.attempt_id WHERE a.quiz_id = 'quiz-chart' GROUP BY m.question_id ORDER BY COUNT(*) DESC LIMIT 1",
    )) as [{ question: string }]
    const record = await questionRecord(db, maren, question)
    expect(record.n).toBeGreaterThanOrEqual(20)
    expect(record.facility).toBeGreaterThan(0)
    expect(Math.abs(record.discrimination ?? 0)).toBeLessThanOrEqual(1)
    expect(record.quizzes.some((quiz) => quiz.title !== null)).toBe(true)
    expect(
      (await questionRecord(db, idris, question)).quizzes.every(
        (quiz) => quiz.title === null || quiz.id === 'quiz-tides',
      ),
    ).toBe(true)
  })
  it('saved searches are one’s own', async () => {
    const { id } = await saveSearch(db, maren, {
      name: 'Hard tides',
      query: searchQuery.parse({ words: 'tide', difficulty: ['4', '5'] }),
    })
    expect(await savedSearches(db, maren)).toMatchObject([
      { name: 'Hard tides', query: { words: 'tide', difficulty: [4, 5] } },
    ])
    expect(await savedSearches(db, idris)).toEqual([])
    await expect(dropSearch(db, idris, id)).rejects.toMatchObject({ status: 404 })
    await dropSearch(db, maren, id)
  })
})
