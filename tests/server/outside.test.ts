import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newRow } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import {
  answerCorrection,
  askForBank,
  correctionDifferences,
  listOutside,
  reportFault,
  syncBank,
  takeQuestion,
} from '../../server/domain/bank/outside/outside'
import { loadQuestion, reviseQuestion } from '../../server/domain/bank/questions/questions'
import { searchQuery, searchQuestions } from '../../server/domain/bank/finding/search'
import type { Person } from '../../server/people/people'
import { checksFor } from '../../server/domain/quizzes/checks'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { standInKeeper } from '../../server/standins/keeper/stand-in'
import { freshDatabase, person } from '../support/database'
import { day, later } from '../support/quiz'

let db: Database
let maren: Person
let idris: Person
beforeAll(async () => {
  db = (await freshDatabase('outside', day)).db
  ;[maren, idris] = [await person(db, 'p-maren'), await person(db, 'p-idris')]
})
afterAll(() => db.close())

const keeper = (minutes: number) => standInKeeper(db, later(minutes))
const find = async (query: object, minutes: number, by = maren) =>
  (await searchQuestions(db, by, searchQuery.parse({ take: '200', ...query }), later(minutes))).hits
const stateOf = async (bank: string, minutes: number) =>
  (await listOutside(db, maren, keeper(minutes), later(minutes))).banks.find((each) => each.bank === bank)!
const year = 365 * 24 * 60

describe('banks from outside', () => {
  it('are found in the same search once they are granted, with whose they are and how often schools chose each', async () => {
    const hits = await find({ origin: 'outside' }, 1)
    expect(hits).toHaveLength(20)
    expect(
      hits.every(
        (hit) =>
          hit.origin!.bank === 'Harrow Bay Federation of Sailing Schools: Shore-based theory' && hit.state === 'usable',
      ),
    ).toBe(true)
    expect(new Set(hits.map((hit) => hit.origin!.chosen)).size).toBeGreaterThan(5)
    expect((await find({ words: 'sidelights sternlight' }, 1)).map((hit) => hit.sharing)).toContain('outside')
    expect((await find({ words: 'sidelights sternlight', origin: 'own' }, 1)).every((hit) => hit.origin === null)).toBe(
      true,
    )
    // A colleague of the same school has it too; nobody changes it.
    const [hit] = await find({ origin: 'outside' }, 1, idris)
    expect((await loadQuestion(db, idris, hit!.id, undefined, later(1))).mayWrite).toBe(false)
    await expect(
      reviseQuestion(
        db,
        maren,
        hit!.id,
        1,
        (await loadQuestion(db, maren, hit!.id, undefined, later(1))).question,
        later(1),
      ),
    ).rejects.toMatchObject({ status: 404 })
  })
  it('another is asked for, and granted when its keeper has decided', async () => {
    expect((await stateOf('weather-book', 1)).state).toBe('open')
    await askForBank(db, maren, keeper(2), 'weather-book', later(2))
    expect(await stateOf('weather-book', 2)).toMatchObject({ state: 'asked', until: null })
    await expect(syncBank(db, maren, keeper(2), 'weather-book', later(2))).rejects.toMatchObject({ status: 409 })
    expect(await find({ words: 'isobars', origin: 'outside' }, 2)).toEqual([])
    expect(await stateOf('weather-book', 4)).toMatchObject({ state: 'granted', until: later(3 + 180 * 24 * 60) })
    expect(await find({ words: 'isobars', origin: 'outside' }, 4)).toHaveLength(1)
    await expect(askForBank(db, maren, keeper(4), 'no-such', later(4))).rejects.toMatchObject({ status: 404 })
  })
  it('taking one copies it with its source, once; the copy is the school’s own', async () => {
    const [hit] = await find({ words: 'gas leaked', origin: 'outside' }, 5)
    const taken = await takeQuestion(db, maren, keeper(5), hit!.id, later(5))
    expect(await takeQuestion(db, idris, keeper(5), hit!.id, later(5))).toEqual(taken)
    const copy = await loadQuestion(db, idris, taken.id)
    expect(copy).toMatchObject({
      mayWrite: true,
      sharing: 'school',
      origin: null,
      takenFrom: { bank: hit!.origin!.bank, corrected: false },
    })
    expect(copy.question.source).toBe('Harrow Bay Federation of Sailing Schools: Shore-based theory, item-12')
    await syncBank(db, maren, keeper(6), 'harrow-bay', later(6))
    expect((await find({ words: 'gas leaked', origin: 'outside' }, 6))[0]!.origin).toEqual({
      ...hit!.origin,
      copy: taken.id,
      chosen: hit!.origin!.chosen + 1,
    })
  })
  it('a fault is reported back; the correction is offered, shown, and taken over or left', async () => {
    const [hit] = await find({ words: 'east cardinal flashes', origin: 'outside' }, 10)
    const { id } = await takeQuestion(db, maren, keeper(10), hit!.id, later(10))
    const own = (await loadQuestion(db, maren, id)).question
    await reviseQuestion(db, maren, id, 1, { ...own, objectives: ['obj-4-2'], tags: ['lights'] }, later(11))
    await expect(correctionDifferences(db, maren, id)).rejects.toMatchObject({ status: 404 })
    await reportFault(db, idris, keeper(12), id, { words: 'An east cardinal mark shows three.' }, later(12))
    expect(await syncBank(db, maren, keeper(13), 'harrow-bay', later(13))).toEqual({ questions: 20, corrected: 1 })
    expect((await listOutside(db, maren, keeper(13), later(13))).corrections.map((each) => each.copy)).toEqual([id])
    expect((await correctionDifferences(db, maren, id)).map((each) => each.part)).toEqual(['key'])
    expect(await answerCorrection(db, maren, id, true, later(14))).toEqual({ version: 3 })
    const corrected = (await loadQuestion(db, maren, id)).question
    expect(corrected).toMatchObject({ objectives: ['obj-4-2'], tags: ['lights'], body: { answers: [{ value: '3' }] } })
    expect((await listOutside(db, maren, keeper(14), later(14))).corrections).toEqual([])
    await expect(answerCorrection(db, maren, id, false, later(15))).rejects.toMatchObject({ status: 404 })
  })
  it('a quiz cannot be opened with one that was not taken', async () => {
    const [hit] = await find({ words: 'hour cold water', origin: 'outside' }, 20)
    const quiz = (await loadQuiz(db, 'quiz-tides')).quiz
    const checks = await checksFor(
      db,
      maren,
      {
        id: 'quiz-tides',
        edition: null,
        quiz: {
          ...quiz,
          content: {
            ...quiz.content,
            sections: [
              {
                ...quiz.content.sections[0]!,
                rows: [newRow({ type: 'question', id: 'r1', question: hit!.id, points: 1 })],
              },
            ],
          },
        },
      },
      new Map(),
      later(20),
    )
    expect(checks.find((check) => check.code === 'unusable:r1')!.sentence).toMatch(/bank of others and not taken/)
  })
  it('when the time is over nothing is found any more but what was taken; asking again brings it back', async () => {
    const over = year + 10
    expect(await find({ origin: 'outside' }, over)).toEqual([])
    expect((await stateOf('harrow-bay', over)).state).toBe('over')
    expect((await find({ words: 'gas leaked' }, over)).map((hit) => hit.origin)).toEqual([null])
    await expect(syncBank(db, maren, keeper(over), 'harrow-bay', later(over))).rejects.toMatchObject({ status: 409 })
    await askForBank(db, maren, keeper(over), 'harrow-bay', later(over))
    expect(await find({ origin: 'outside' }, over)).toHaveLength(20)
  })
  it('another school sees nothing of it', async () => {
    await db.run("INSERT INTO school (id, name, zone, demo) VALUES ('other', 'Other', 'UTC', 0)")
    await db.run(
      "INSERT INTO person (id, school_id, role, name, email, password_hash) SELECT 'p-other', 'other', role, name, 'other@other.example', password_hash FROM person WHERE id = 'p-maren'",
    )
    const other = await person(db, 'p-other')
    expect(await find({}, 1, other)).toEqual([])
    expect((await listOutside(db, other, keeper(1), later(1))).banks.map((each) => each.state)).toEqual([
      'open',
      'open',
    ])
  })
})
