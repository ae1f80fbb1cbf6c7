/** A quiz that opens by itself, for one class after another. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newRow } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { openQuiz } from '../../server/domain/quizzes/open'
import { openDue, openingOf, setOpening } from '../../server/domain/quizzes/openings'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { loadQuiz, shareQuiz, unshareQuiz } from '../../server/domain/quizzes/quizzes'
import { quizRecord } from '../../server/domain/quizzes/record-page'
import { whyStudent } from '../../server/domain/quizzes/why'
import { beforeSitting, myQuizzes } from '../../server/domain/sittings/my-quizzes'
import { startSitting } from '../../server/domain/sittings/start'
import { editTo } from '../../core/quiz'
import type { Person } from '../../server/people/people'
import { freshDatabase, person } from '../support/database'
import { day, draftQuiz, later, openedQuiz, rulesEdit, threeHours, threeRows } from '../support/quiz'

let db: Database
let maren: Person
let nell: Person
beforeAll(async () => {
  db = (await freshDatabase('openings', day)).db
  maren = await person(db, 'p-maren')
  nell = await person(db, 'p-nell-ashdown')
})
afterAll(() => db.close())

const draft = (id: string, rows = threeRows) =>
  draftQuiz(db, id, { windows: [threeHours('c-tuesday', 'c-saturday')] }, {}, rows)
const record = async (quiz: string) =>
  (await quizRecord(db, maren, quiz, { after: 0, about: 'quiz' })).lines.map(
    ({ who, what }) => `${who ?? 'clock'} ${what}`,
  )

describe('a set time', () => {
  it('opens it once, by whichever process comes first, and not before', async () => {
    const quiz = await draft('timed')
    await expect(setOpening(db, maren, quiz, later(-20), later(-10))).rejects.toMatchObject({ status: 422 })
    await setOpening(db, maren, quiz, later(-5), later(-10))
    expect(await openDue(db, later(-6))).toBe(0)
    expect((await loadQuiz(db, quiz)).stored).toBe('draft')
    await Promise.all(Array.from({ length: 5 }, () => openDue(db, later(-5))))
    expect((await loadQuiz(db, quiz)).stored).toBe('published')
    expect(await openingOf(db, quiz)).toBeNull()
    expect(await db.rows('SELECT id FROM edition WHERE quiz_id = ?', [quiz])).toHaveLength(1)
    expect(await record(quiz)).toEqual(['Maren Holt opened it, edition 1', 'Maren Holt set when it opens by itself'])
    await expect(setOpening(db, maren, quiz, later(60), later(1))).rejects.toMatchObject({ status: 409 })
  })

  it('gives nobody what was changed since somebody opened it', async () => {
    const quiz = await draft('meanwhile')
    await setOpening(db, maren, quiz, later(-5), later(-10))
    await openQuiz(db, maren, quiz, later(-9))
    const { revision, quiz: document } = await loadQuiz(db, quiz)
    const more = { ...document, content: { ...document.content, intro: '<p>Not for them yet.</p>' } }
    await makeEdit(db, maren, quiz, revision, 'mean.1', editTo(document, more)!, later(-8))
    await openDue(db, later(0))
    expect(await db.rows('SELECT id FROM edition WHERE quiz_id = ?', [quiz])).toHaveLength(1)
    expect(await openingOf(db, quiz)).toBeNull()
  })

  it('is called off, and set anew', async () => {
    const quiz = await draft('called-off')
    await setOpening(db, maren, quiz, later(-5), later(-10))
    await setOpening(db, maren, quiz, null, later(-9))
    await openDue(db, later(0))
    expect((await loadQuiz(db, quiz)).stored).toBe('draft')
    await setOpening(db, maren, quiz, later(-5), later(-8))
    await setOpening(db, maren, quiz, later(5), later(-7))
    await openDue(db, later(0))
    expect(await openingOf(db, quiz)).toBe(later(5))
  })

  it('that meets something that stops it tells who set it, and leaves it closed', async () => {
    const quiz = await draft('stopped', [newRow({ type: 'pool', id: 'p', questions: ['q-fire'], draw: 3, points: 1 })])
    await db.run('DELETE FROM mail')
    await setOpening(db, maren, quiz, later(-5), later(-10))
    await openDue(db, later(0))
    expect((await loadQuiz(db, quiz)).stored).toBe('draft')
    expect((await record(quiz))[0]).toBe('clock could not open it by itself')
    const letters = await db.rows<{ subject: string; body: string }>('SELECT subject, body FROM mail')
    expect(letters.map(({ subject }) => subject)).toEqual(['Not opened: Quiz stopped'])
    expect(letters[0]!.body).toContain('Nobody can sit it.')
    await openDue(db, later(10))
    expect(await db.rows('SELECT 1 FROM mail')).toHaveLength(1)
  })

  it('holds only as long as whoever set it may open it', async () => {
    const quiz = await draft('rights')
    const idris = await person(db, 'p-idris')
    await expect(setOpening(db, idris, quiz, later(5), later(-10))).rejects.toMatchObject({ status: 404 })
    await shareQuiz(db, maren, quiz, { email: 'idris.quayle@gannet.example' }, later(-20))
    await setOpening(db, idris, quiz, later(-5), later(-10))
    await unshareQuiz(db, maren, quiz, 'p-idris', later(-8))
    await openDue(db, later(0))
    expect((await loadQuiz(db, quiz)).stored).toBe('draft')
  })

  it('is tried again by another process where one has died over it', async () => {
    const quiz = await draft('died')
    await setOpening(db, maren, quiz, later(-5), later(-10))
    await db.run("UPDATE quiz_opening SET tried_at = '2030-05-14 08:56:00.000' WHERE quiz_id = ?", [quiz])
    await openDue(db, later(-1))
    expect((await loadQuiz(db, quiz)).stored).toBe('draft')
    await openDue(db, later(2))
    expect((await loadQuiz(db, quiz)).stored).toBe('published')
  })
})

it('a class from which it is held back gets it when it is given, and sees nothing before', async () => {
  const quiz = await openedQuiz(db, 'held-back', { heldBack: ['c-tuesday'] })
  await expect(beforeSitting(db, nell, quiz, later(1))).resolves.toMatchObject({ may: { may: false, why: 'held' } })
  expect((await myQuizzes(db, nell, later(1))).quizzes.map(({ id }) => id)).not.toContain(quiz)
  await expect(startSitting(db, nell, quiz, { device: 'd1' }, later(1))).rejects.toMatchObject({ status: 409 })
  expect((await whyStudent(db, maren, quiz, nell.id, later(1))).sentence).toBe(
    'Nell Ashdown does not see it: it is held back from their class.',
  )
  const { revision } = await loadQuiz(db, quiz)
  await makeEdit(db, maren, quiz, revision, 'give.1', await rulesEdit(db, quiz, { heldBack: [] }), later(2))
  expect((await record(quiz))[0]).toBe('Maren Holt changed the rules')
  expect((await startSitting(db, nell, quiz, { device: 'd1' }, later(3))).attempt).toBeTruthy()
})
