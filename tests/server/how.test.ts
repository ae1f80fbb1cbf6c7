/** How a paper is sat: section by section, putting off, in one go, notes of one's own, the record of leaving the page. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Content, Rules } from '../../core/quiz'
import { mapInOrder } from '../../server/database/batches'
import type { Database } from '../../server/database/database'
import { markedPaper, marksTable } from '../../server/domain/marks/marks'
import { noteAway } from '../../server/domain/sittings/away'
import { beginBreak, endBreak } from '../../server/domain/sittings/breaks'
import { handIn } from '../../server/domain/sittings/hand-in'
import { letIn } from '../../server/domain/sittings/let-in'
import { keepNote } from '../../server/domain/sittings/notes'
import { saveAnswers } from '../../server/domain/sittings/save'
import { moveOn, openSitting, sittingClock } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { setAccommodation } from '../../server/domain/classes/needs'
import { noAccommodation } from '../../core/quiz'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz, threeRows } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('how', day)).db
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
async function begun(name: string, rules: Partial<Rules>, content: Partial<Content> = {}) {
  const quiz = await openedQuiz(db, name, rules, content)
  const { attempt } = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, day)
  return { quiz, attempt, items: await itemsOf(db, attempt) }
}
const save = async (attempt: string, item: string, text: string, seq: number, at: string) =>
  saveAnswers(db, nell, attempt, 1, [{ item, response: { text }, flagged: false, seq }], at)

describe('section by section', () => {
  const section = { intro: '', order: 'kept' as const, limit: null, objectives: [] }
  it('a section that was left is closed; within one, pages are turned both ways', async () => {
    const [datum, cover, clearing] = threeRows
    const { attempt, items } = await begun(
      'by-section',
      {},
      {
        movement: 'section',
        pages: { by: 'all' },
        sections: [
          { ...section, pages: { by: 'count', count: 1 }, id: 's1', title: 'Tides', rows: [datum!, cover!] },
          { ...section, pages: null, id: 's2', title: 'Buoys', rows: [clearing!] },
        ],
      },
    )
    const { sheet } = await openSitting(db, nell, attempt, 'd1', day)
    expect([sheet.pages, sheet.movement]).toEqual([3, 'section'])
    expect(await moveOn(db, nell, attempt, 1, 1, later(1))).toMatchObject({ page: 0 })
    expect(await moveOn(db, nell, attempt, 1, 0, later(1))).toMatchObject({ page: 0 })
    expect((await save(attempt, items['q-cover']!.item, '2.3', 1, later(2))).refused).toEqual([])
    expect(await moveOn(db, nell, attempt, 1, 2, later(3))).toMatchObject({ page: 2 })
    expect((await save(attempt, items['q-cover']!.item, '9', 2, later(4))).refused[0]!.reason).toBe('page')
    expect(await moveOn(db, nell, attempt, 1, 0, later(4))).toMatchObject({ page: 2 })
    expect((await save(attempt, items['q-clearing']!.item, 'slack', 3, later(5))).refused).toEqual([])
  })
})

describe('putting off', () => {
  it('what is left empty comes back behind the last page; what was answered is closed', async () => {
    const { attempt, items } = await begun(
      'put-off',
      {},
      { movement: 'forward', putOff: true, pages: { by: 'count', count: 1 } },
    )
    const [datum, cover, clearing] = ['q-datum', 'q-cover', 'q-clearing'].map((id) => items[id]!.item) as [
      string,
      string,
      string,
    ]
    await save(attempt, clearing, 'slack', 1, later(1))
    expect(await moveOn(db, nell, attempt, 1, 1, later(1))).toEqual({ page: 1, putOff: [datum] })
    expect((await save(attempt, datum, 'x', 2, later(1))).refused[0]!.reason).toBe('invalid')
    await save(attempt, cover, '2.3', 3, later(2))
    expect(await moveOn(db, nell, attempt, 1, 2, later(3))).toEqual({ page: 2, putOff: [datum] })
    expect((await save(attempt, cover, '9', 4, later(4))).refused[0]!.reason).toBe('page')
    // Twice at once is once, and another device finds it where it is.
    const both = await Promise.all([3, 3].map((page) => moveOn(db, nell, attempt, 1, page, later(5))))
    expect(both.map(({ page, putOff }) => [page, putOff])).toEqual(both.map(() => [3, [datum]]))
    expect(await openSitting(db, nell, attempt, 'd1', later(6))).toMatchObject({ putOff: [datum], page: 3, puts: true })
    const answer = { item: datum, response: { chosen: [items['q-datum']!.options.a!] }, flagged: false, seq: 5 }
    expect((await saveAnswers(db, nell, attempt, 1, [answer], later(7))).refused).toEqual([])
    expect((await save(attempt, clearing, 'no', 6, later(7))).refused[0]!.reason).toBe('page')
    await expect(moveOn(db, nell, attempt, 1, 4, later(8))).rejects.toMatchObject({ status: 422 })
  })
  it('without the rule an empty question is closed with its page', async () => {
    const { attempt, items } = await begun('no-put-off', {}, { movement: 'forward', pages: { by: 'count', count: 1 } })
    expect(await moveOn(db, nell, attempt, 1, 1, later(1))).toEqual({ page: 1, putOff: [] })
    const answer = {
      item: items['q-datum']!.item,
      response: { chosen: [items['q-datum']!.options.a!] },
      flagged: false,
      seq: 1,
    }
    expect((await saveAnswers(db, nell, attempt, 1, [answer], later(2))).refused[0]!.reason).toBe('page')
    await expect(moveOn(db, nell, attempt, 1, 3, later(2))).rejects.toMatchObject({ status: 422 })
  })
})

describe('one sitting', () => {
  it('whoever was away for longer waits to be let in; a short loss of connection shuts nobody out', async () => {
    const { quiz, attempt } = await begun('one-go', { oneSitting: 2 })
    await openSitting(db, nell, attempt, 'd1', later(0))
    await openSitting(db, nell, attempt, 'd2', later(2))
    await sittingClock(db, nell, attempt, 2, later(3.5))
    await openSitting(db, nell, attempt, 'd3', later(5.5))
    const shut = async (at: string) =>
      (await marksTable(db, quiz, at)).students.find(({ id }) => id === nell)!.attempts[0]!.how!.shutOut
    expect(await shut(later(7.5))).toBe(false)
    // Whose page stayed open without a connection was away as well.
    await expect(sittingClock(db, nell, attempt, 3, later(8))).rejects.toMatchObject({ code: 'shut-out' })
    await expect(openSitting(db, nell, attempt, 'd3', later(8))).rejects.toMatchObject({
      status: 409,
      code: 'shut-out',
    })
    expect(await shut(later(8))).toBe(true)
    // What is on its way still arrives.
    const { item } = (await itemsOf(db, attempt))['q-cover']!
    const late = { item, response: { text: '2.3' }, flagged: false, seq: 1 }
    expect((await saveAnswers(db, nell, attempt, 3, [late], later(8))).refused).toEqual([])
    await expect(letIn(db, await person(db, 'p-maren'), 'quiz-tides', attempt, later(9))).rejects.toMatchObject({
      status: 404,
    })
    await letIn(db, await person(db, 'p-maren'), quiz, attempt, later(9))
    await openSitting(db, nell, attempt, 'd1', later(20))
    await handIn(db, nell, attempt, 4, [], later(21))
    await expect(letIn(db, await person(db, 'p-maren'), quiz, attempt, later(22))).rejects.toMatchObject({
      status: 409,
    })
  })
  it('a break is no absence', async () => {
    await setAccommodation(db, await person(db, 'p-maren'), nell, { ...noAccommodation, breakMinutes: 30 }, day)
    const { quiz, attempt } = await begun('one-break', { oneSitting: 2 })
    const { lease } = await openSitting(db, nell, attempt, 'd1', later(1))
    await beginBreak(db, nell, attempt, lease, later(2))
    const table = await marksTable(db, quiz, later(15))
    expect(table.students.find(({ id }) => id === nell)!.attempts[0]!.how!.shutOut).toBe(false)
    await endBreak(db, nell, attempt, later(20))
    expect((await openSitting(db, nell, attempt, 'd1', later(21))).number).toBe(1)
    await setAccommodation(db, await person(db, 'p-maren'), nell, noAccommodation, day)
  })
})

describe('notes of one’s own', () => {
  it('are kept with the paper for its student alone, from any device, until it is handed in', async () => {
    const { quiz, attempt, items } = await begun('own-notes', {
      tools: { calculator: 'plain', ruler: true, notes: true, highlight: true, strike: false, flags: false },
    })
    const { item } = items['q-cover']!
    await keepNote(db, nell, attempt, { item, note: 'NOTE-ebb', marks: [[0, 4]] }, later(1))
    expect(await openSitting(db, nell, attempt, 'd2', later(2))).toMatchObject({
      notes: { [item]: { note: 'NOTE-ebb', marks: [[0, 4]] } },
      tools: { calculator: 'plain', strike: false },
    })
    await expect(keepNote(db, 'p-petra-lund', attempt, { item, note: 'x', marks: [] }, later(2))).rejects.toMatchObject(
      { status: 404 },
    )
    await expect(keepNote(db, nell, attempt, { item: 'none', note: 'x', marks: [] }, later(2))).rejects.toMatchObject({
      status: 422,
    })
    expect(JSON.stringify(await markedPaper(db, quiz, attempt, later(3)))).not.toContain('NOTE')
    await keepNote(db, nell, attempt, { item, note: '', marks: [] }, later(3))
    expect((await openSitting(db, nell, attempt, 'd2', later(3))).notes).toEqual({})
    await handIn(db, nell, attempt, 2, [], later(4))
    await expect(keepNote(db, nell, attempt, { item, note: 'x', marks: [] }, later(5))).rejects.toMatchObject({
      status: 409,
    })
  })
})

describe('leaving the page', () => {
  it('is noted by the server’s clock, once however often it is sent, never before the start; and only where it is said', async () => {
    const { quiz, attempt } = await begun('watched', { watched: true })
    const away = (token: string, seconds: number, at: string) => noteAway(db, nell, attempt, { token, seconds }, at)
    await Promise.all([1, 2].map(() => away('token-one', 30, later(5))))
    await away('token-two', 90_000, later(6))
    expect((await markedPaper(db, quiz, attempt, later(7))).away).toEqual([
      { leftAt: day, seconds: 360 },
      { leftAt: later(4.5), seconds: 30 },
    ])
    await expect(
      noteAway(db, 'p-petra-lund', attempt, { token: 'token-three', seconds: 1 }, later(7)),
    ).rejects.toMatchObject({ status: 404 })
    const plain = await begun('unwatched', {})
    await noteAway(db, nell, plain.attempt, { token: 'token-one', seconds: 30 }, later(5))
    expect((await markedPaper(db, plain.quiz, plain.attempt, later(6))).away).toEqual([])
  })
  it('is kept at most 500 times for a paper', async () => {
    const { quiz, attempt } = await begun('watched-much', { watched: true })
    // All but two of them at once: what is counted is what is there.
    const rows = Array.from({ length: 498 }, (_, i) => [attempt, `before-${i}`, day.slice(0, 19).replace('T', ' '), 1])
    await db.run('INSERT INTO attempt_away (attempt_id, token, left_at, seconds) VALUES ?', [rows])
    const tokens = ['token-one', 'token-two', 'token-three', 'token-four']
    await mapInOrder(tokens, (token) => noteAway(db, nell, attempt, { token, seconds: 1 }, later(5)))
    expect((await markedPaper(db, quiz, attempt, later(6))).away).toHaveLength(500)
  })
})
