/** Find or do, and the record: whoever types finds only what they may see, whoever reads is told only what they may. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Database } from '../../server/database/database'
import { setKeeping } from '../../server/domain/bank/questions/keeping'
import { addQuestion } from '../../server/domain/bank/questions/questions'
import { find } from '../../server/domain/find/find'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { releaseTo } from '../../server/domain/quizzes/open'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { quizRecord } from '../../server/domain/quizzes/record-page'
import { handIn } from '../../server/domain/sittings/hand-in'
import { startSitting } from '../../server/domain/sittings/start'
import type { Person } from '../../server/people/people'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz, rulesEdit } from '../support/quiz'

let db: Database
let maren: Person
let idris: Person
let nell: Person
beforeAll(async () => {
  db = (await freshDatabase('find', day)).db
  maren = await person(db, 'p-maren')
  idris = await person(db, 'p-idris')
  nell = await person(db, 'p-nell-ashdown')
})
afterAll(() => db.close())

const found = async (who: Person, words: string) =>
  (await find(db, who, words, later(1))).map(({ sort, name }) => `${sort} ${name}`)

describe('finding by typing', () => {
  it('finds quizzes, students, classes and questions of one’s own by beginnings and parts of words', async () => {
    expect(await found(maren, 'tides')).toContain('quiz Tides and tidal heights')
    expect(await found(maren, 'ashd')).toEqual(['student Nell Ashdown'])
    expect(await found(maren, 'tuesday')).toContain('class Tuesday evening')
    expect((await found(maren, 'datum')).some((each) => each.startsWith('question '))).toBe(true)
    expect(await found(maren, '   ')).toEqual([])
    expect(await found(maren, 'xyzzy')).toEqual([])
    // What a search would take for a sign is a letter like any other.
    expect(await found(maren, '%')).toEqual([])
  })

  it('finds nothing that one may not see', async () => {
    const { id } = await addQuestion(db, maren, sampleQuestion('number', { stem: '<p>Zanzibar harbour?</p>' }), day)
    expect(await found(idris, 'zanzibar')).toEqual(['question Zanzibar harbour?'])
    await setKeeping(db, maren, id, { sharing: 'private' }, day)
    expect(await found(idris, 'zanzibar')).toEqual([])
    expect(await found(maren, 'zanzibar')).toEqual(['question Zanzibar harbour?'])
    await openedQuiz(db, 'zulu')
    expect(await found(maren, 'zulu')).toEqual(['quiz Quiz zulu'])
    expect(await found(idris, 'zulu')).toEqual([])
    await db.run("DELETE FROM class_teacher WHERE person_id = 'p-idris' AND class_id = 'c-tuesday'")
    expect(await found(idris, 'ashdown')).toEqual([])
    expect(await found(idris, 'tuesday')).not.toContain('class Tuesday evening')
  })

  it('finds for a student only their own quizzes, and takes nothing for seen', async () => {
    expect(await found(nell, 'zulu')).toEqual(['quiz Quiz zulu'])
    expect(await found(nell, 'datum')).toEqual([])
    expect(await found(nell, 'maren')).toEqual([])
    expect(
      await db.rows('SELECT * FROM viewed v JOIN attempt a ON a.id = v.attempt_id WHERE a.student_id = ?', [nell.id]),
    ).toEqual([])
  })
})

describe('the record of a quiz', () => {
  it('tells who did what, when and how, with papers where they are asked for', async () => {
    const quiz = await openedQuiz(db, 'noted')
    const { revision } = await loadQuiz(db, quiz)
    await makeEdit(db, maren, quiz, revision, 'rec.1', await rulesEdit(db, quiz, { limit: 30 }), later(1))
    await releaseTo(db, maren, quiz, 'c-tuesday', later(2))
    const { attempt } = await startSitting(db, nell, quiz, { device: 'd1' }, later(3))
    await handIn(db, nell.id, attempt, 1, [], later(4))
    const own = await quizRecord(db, maren, quiz, { after: 0, about: 'quiz' })
    expect(own.lines.map(({ who, what, more }) => [who, what, more])).toEqual([
      ['Maren Holt', 'released results to Tuesday evening', []],
      ['Maren Holt', 'changed the rules', [expect.stringContaining('30 minutes')]],
      ['Maren Holt', 'opened it, edition 1', []],
    ])
    const all = await quizRecord(db, maren, quiz, { after: 0, about: 'papers' })
    expect(all.lines.slice(0, 2).map(({ who, what, student }) => [who, what, student])).toEqual([
      ['Nell Ashdown', 'handed in', 'Nell Ashdown'],
      ['Nell Ashdown', 'started attempt 1', 'Nell Ashdown'],
    ])
    expect((await quizRecord(db, maren, quiz, { after: 1, about: 'quiz' })).lines).toHaveLength(2)
  })

  it('tells nothing of papers without names', async () => {
    const quiz = await openedQuiz(db, 'nameless', { anonymous: true })
    const { attempt } = await startSitting(db, nell, quiz, { device: 'd1' }, later(3))
    await handIn(db, nell.id, attempt, 1, [], later(4))
    const { lines, anonymous } = await quizRecord(db, maren, quiz, { after: 0, about: 'papers' })
    expect(anonymous).toBe(true)
    expect(lines.map(({ what }) => what)).toEqual(['opened it, edition 1'])
  })
})
