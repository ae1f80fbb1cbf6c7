import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { questionsUsed } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { addFolder, removeFolder } from '../../server/domain/bank/describing/folders'
import { addQuestion } from '../../server/domain/bank/questions/questions'
import { copyQuiz } from '../../server/domain/quizzes/copy'
import { comeByAddress, fileQuiz, filingChange, filingOf, setAddress } from '../../server/domain/quizzes/filing'
import { listQuizzes, quizQuery, quizWords } from '../../server/domain/quizzes/list'
import { lookInto } from '../../server/domain/quizzes/look'
import { loadQuiz, mayLook, mayTeach, shareQuiz, unshareQuiz } from '../../server/domain/quizzes/quizzes'
import { quizView } from '../../server/domain/quizzes/view'
import { ensureRight } from '../../server/people/rights'
import { newRow } from '../../core/quiz'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, openedQuiz } from '../support/quiz'

let db: Database
let maren: Awaited<ReturnType<typeof person>>
let idris: Awaited<ReturnType<typeof person>>
beforeAll(async () => {
  db = (await freshDatabase('filing', day)).db
  ;[maren, idris] = [await person(db, 'p-maren'), await person(db, 'p-idris')]
})
afterAll(() => db.close())

const found = async (who: typeof maren, query: Partial<Record<keyof typeof quizQuery.shape, string>>) =>
  (await listQuizzes(db, who, day, quizQuery.parse(query))).quizzes.map(({ id }) => id)

describe('how quizzes are kept', () => {
  it('they are found by words, term, tag and folder, with what lies in folders under it', async () => {
    const above = await addFolder(db, maren, { name: 'Winter', parent: null })
    const under = await addFolder(db, maren, { name: 'Exams', parent: above.id })
    await openedQuiz(db, 'kept')
    await openedQuiz(db, 'loose')
    const filing = { description: 'On tides_50%', term: 'Winter 2030', tags: ['exam', 'tides', 'exam'] }
    expect(await fileQuiz(db, maren, 'kept', filingChange.parse({ ...filing, folder: under.id }), day)).toEqual({
      ...filing,
      tags: ['exam', 'tides'],
      folder: under.id,
      sharing: 'named',
    })
    for (const query of [
      { words: 'TIDES winter' },
      { words: 'tides_50%' },
      { term: 'Winter 2030' },
      { tag: 'exam' },
      { folder: under.id },
      { folder: above.id },
    ])
      expect(await found(maren, query), JSON.stringify(query)).toEqual(['kept'])
    for (const query of [{ words: 'tidesx50' }, { words: 'tides summer' }, { tag: 'exa' }, { term: 'Winter' }])
      expect(await found(maren, query), JSON.stringify(query)).toEqual([])
    expect(await quizWords(db, maren)).toEqual({ terms: ['Winter 2030'], tags: ['exam', 'tides'] })
    expect(await quizWords(db, idris)).toEqual({ terms: [], tags: [] })
    await removeFolder(db, maren, under.id)
    expect((await filingOf(db, 'kept')).folder).toBe(above.id)
  })
  it('what is wrong is refused, and nothing is kept of it', async () => {
    await openedQuiz(db, 'refused')
    await expect(fileQuiz(db, maren, 'refused', { term: 'X', folder: 'gone' }, day)).rejects.toMatchObject({
      status: 404,
    })
    await expect(fileQuiz(db, idris, 'refused', { term: 'X' }, day)).rejects.toMatchObject({ status: 404 })
    await shareQuiz(db, maren, 'refused', { email: 'idris.quayle@gannet.example' }, day)
    await expect(fileQuiz(db, idris, 'refused', { term: 'X', sharing: 'school' }, day)).rejects.toMatchObject({
      code: 'not-owner',
    })
    expect(await filingOf(db, 'refused')).toMatchObject({ term: '', sharing: 'named' })
    expect(await fileQuiz(db, idris, 'refused', { term: 'X' }, day)).toMatchObject({ term: 'X' })
  })
})

describe('who may only look at a quiz', () => {
  it('sees what it holds as far as its questions are shared, and nothing else of it', async () => {
    const own = await addQuestion(db, maren, sampleQuestion('choice', { stem: '<p>Hidden one</p>' }), day, 'hid', {
      folder: null,
      sharing: 'private',
    })
    await openedQuiz(db, 'looked', { password: 'ebb tide' }, {}, [
      newRow({ type: 'question', id: 'r1', question: own.id, points: 1 }),
      newRow({ type: 'question', id: 'r2', question: 'q-datum', points: 1 }),
    ])
    expect(await mayLook(db, idris, 'looked')).toBe(false)
    await expect(lookInto(db, idris, 'looked', day)).rejects.toMatchObject({ status: 404 })
    await shareQuiz(db, maren, 'looked', { email: 'idris.quayle@gannet.example', may: 'read', mayShare: true }, day)
    expect([await mayLook(db, idris, 'looked'), await mayTeach(db, idris.id, 'looked')]).toEqual([true, false])
    await expect(ensureRight(db, 'quizTeacher', idris, 'looked')).rejects.toMatchObject({ status: 404 })
    await expect(ensureRight(db, 'quizReader', idris, 'looked')).resolves.toBeUndefined()
    const look = await lookInto(db, idris, 'looked', day)
    expect(look).toMatchObject({ may: 'read', hidden: 1 })
    expect(questionsUsed(look.content)).toEqual(['q-datum'])
    expect(JSON.stringify(look)).not.toMatch(/Hidden one|ebb tide|c-tuesday/)
    // Whoever may only look lets nobody in, and keeps nothing of it.
    await expect(
      shareQuiz(db, idris, 'looked', { email: 'maren.holt@gannet.example', may: 'read' }, day),
    ).rejects.toMatchObject({ status: 403 })
    const [row] = (await listQuizzes(db, idris, day, quizQuery.parse({ words: 'looked' }))).quizzes
    expect(row).toMatchObject({ may: 'read', meant: [], opens: null, sitting: 0, handedIn: 0 })
  })
  it('a copy of theirs has its rules without windows, classes and password', async () => {
    const { id, leftOut } = await copyQuiz(db, idris, 'looked', { title: 'Of my own', withRules: true, days: 7 }, day)
    expect(leftOut).toBe(1)
    const { rules } = (await loadQuiz(db, id)).quiz
    expect(rules).toMatchObject({ windows: [], password: null, limit: 60 })
  })
  it('is the whole school where its owner shares it so; working in it stays with those named', async () => {
    await openedQuiz(db, 'of-school')
    await fileQuiz(db, maren, 'of-school', { description: 'For all', sharing: 'school' }, day)
    expect(await found(idris, { whose: 'school' })).toEqual(['of-school'])
    expect(await found(idris, { whose: 'mine' })).not.toContain('of-school')
    expect(await found(idris, { whose: 'all' })).toContain('of-school')
    expect(await mayTeach(db, idris.id, 'of-school')).toBe(false)
    const { id } = await copyQuiz(db, idris, 'of-school', { title: 'Mine now', withRules: false, days: 0 }, day)
    expect(await filingOf(db, id)).toMatchObject({ description: 'For all', sharing: 'named' })
    // A right to work in it is not lowered by being let in to look, but by its owner.
    await shareQuiz(db, maren, 'of-school', { email: 'idris.quayle@gannet.example' }, day)
    expect(await mayTeach(db, idris.id, 'of-school')).toBe(true)
    await shareQuiz(db, maren, 'of-school', { email: 'idris.quayle@gannet.example', may: 'read' }, day)
    expect(await mayTeach(db, idris.id, 'of-school')).toBe(false)
  })
  it('may leave it by themself, and takes nobody else out', async () => {
    await openedQuiz(db, 'to-leave')
    await shareQuiz(db, maren, 'to-leave', { email: 'idris.quayle@gannet.example', may: 'read' }, day)
    await expect(unshareQuiz(db, idris, 'to-leave', maren.id, day)).rejects.toMatchObject({ code: 'not-owner' })
    await unshareQuiz(db, idris, 'to-leave', idris.id, day)
    expect(await mayLook(db, idris, 'to-leave')).toBe(false)
  })
  it('is whoever has its address, until that ends; who came by it stays', async () => {
    await openedQuiz(db, 'addressed')
    await expect(setAddress(db, idris, 'addressed', true, day)).rejects.toMatchObject({ code: 'not-owner' })
    const { address } = await setAddress(db, maren, 'addressed', true, day)
    expect(address).toMatch(/^[0-9a-f]{32}$/)
    expect(await mayLook(db, idris, 'addressed')).toBe(false)
    // From both windows at once it is one coming in.
    const came = await Promise.all([1, 2].map(() => comeByAddress(db, idris, address!, day)))
    expect(came.map(({ id }) => id)).toEqual(['addressed', 'addressed'])
    expect([await mayLook(db, idris, 'addressed'), await mayTeach(db, idris.id, 'addressed')]).toEqual([true, false])
    const lines = await db.rows("SELECT 1 AS yes FROM record WHERE what = 'came by address'")
    expect(lines).toHaveLength(1)
    await comeByAddress(db, maren, address!, day)
    const { address: second } = await setAddress(db, maren, 'addressed', true, day)
    for (const gone of [address!, '0'.repeat(32)])
      await expect(comeByAddress(db, idris, gone, day)).rejects.toMatchObject({ code: 'address' })
    await expect(comeByAddress(db, { ...idris, school: 'elsewhere' }, second!, day)).rejects.toMatchObject({
      status: 404,
    })
    await setAddress(db, maren, 'addressed', false, day)
    await expect(comeByAddress(db, idris, second!, day)).rejects.toMatchObject({ status: 404 })
    expect(await mayLook(db, idris, 'addressed')).toBe(true)
    // It stands in no view but its owner's.
    await shareQuiz(db, maren, 'addressed', { email: 'idris.quayle@gannet.example' }, day)
    const { address: third } = await setAddress(db, maren, 'addressed', true, day)
    expect((await quizView(db, maren, 'addressed', day)).address).toBe(third)
    expect(JSON.stringify(await quizView(db, idris, 'addressed', day))).not.toContain(third)
  })
  it('a teacher of another school sees nothing of it', async () => {
    const stranger = { ...idris, id: 'p-elsewhere', school: 'elsewhere' }
    expect(await mayLook(db, stranger, 'of-school')).toBe(false)
    expect(await found(stranger, { whose: 'all' })).toEqual([])
  })
})
