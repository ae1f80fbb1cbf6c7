/** A right that is asked at the door is asked at every side entrance: undo, import, media, rows, lists. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addRows, newRow } from '../../core/quiz'
import { writePackage } from '../../formats/qti/package/write'
import type { Database } from '../../server/database/database'
import { addMedia, loadMedia } from '../../server/domain/bank/material/media'
import { changeMany, undoMany } from '../../server/domain/bank/questions/bulk'
import { setKeeping } from '../../server/domain/bank/questions/keeping'
import { addQuestion, loadQuestion } from '../../server/domain/bank/questions/questions'
import { stageFile } from '../../server/domain/imports/stage'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { createQuiz, loadQuiz, mayTeach, shareQuiz, unshareQuiz } from '../../server/domain/quizzes/quizzes'
import { quizView } from '../../server/domain/quizzes/view'
import { handIn } from '../../server/domain/sittings/hand-in'
import { keepRecording } from '../../server/domain/sittings/recordings'
import { saveAnswers } from '../../server/domain/sittings/save'
import { beforeSitting } from '../../server/domain/sittings/my-quizzes'
import { startSitting } from '../../server/domain/sittings/start'
import type { Person } from '../../server/people/people'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz } from '../support/quiz'

let db: Database
let maren: Person
let idris: Person
let nell: Person
beforeAll(async () => {
  db = (await freshDatabase('side', day)).db
  maren = await person(db, 'p-maren')
  idris = await person(db, 'p-idris')
  nell = await person(db, 'p-nell-ashdown')
})
afterAll(() => db.close())

const hidden = () => sampleQuestion('number', { stem: '<p>How deep is the secret harbour of Maren at low water?</p>' })
/** A question of Maren's that nobody else sees. */
async function secret(): Promise<string> {
  const { id } = await addQuestion(db, maren, hidden(), day)
  await setKeeping(db, maren, id, { sharing: 'private' }, day)
  return id
}

describe('a colleague’s private question', () => {
  it('does not come in as a question after its id has been in the quiz as that of a row', async () => {
    const id = await secret()
    const quiz = await createQuiz(db, idris, 'Rows', day)
    const section = (await loadQuiz(db, quiz)).quiz.content.sections[0]!.id
    await makeEdit(
      db,
      idris,
      quiz,
      0,
      'idris.1',
      addRows(section, null, [{ type: 'question', id, question: 'q-datum', points: 1, fixed: false }]),
      day,
    )
    for (const [i, row] of [
      { type: 'question' as const, id: 'r2', question: id, points: 1, fixed: false },
      {
        type: 'pool' as const,
        id: 'r3',
        title: '',
        questions: [id],
        draw: 1,
        points: 1,
        fixed: false,
        spread: 'none' as const,
      },
    ].entries())
      await expect(makeEdit(db, idris, quiz, 1, `idris.9${i}`, addRows(section, null, [row]), day)).rejects.toThrow(
        /not in this school/,
      )
    const view = await quizView(db, idris, quiz, day)
    expect(JSON.stringify(view.questions)).not.toContain('secret harbour')
  })
  it('is not told of by an import that names it or says the same', async () => {
    const id = await secret()
    const file = (stem: string) =>
      Buffer.from(
        writePackage(
          [{ id, folder: [], objectives: [], question: { ...hidden(), stem } }],
          { media: new Map() },
          '2.2',
        ),
      )
    for (const stem of [hidden().stem, '<p>Something else entirely, in many other words</p>']) {
      const staged = await stageFile(db, idris, file(stem), 'guess.zip', day)
      expect(staged.items.map(({ fate, existing }) => [fate, existing])).toEqual([['new', null]])
      const own = await stageFile(db, maren, file(stem), 'own.zip', day)
      expect(own.items[0]!.existing).toBe(id)
    }
  })
  it('is not written by taking back a change of many when it is no more shared', async () => {
    const { id } = await addQuestion(db, maren, hidden(), day)
    await setKeeping(db, maren, id, { sharing: 'school' }, day)
    const { change } = (await changeMany(
      db,
      idris,
      { questions: [id], change: { do: 'tag', add: ['mine'], remove: [] } },
      later(1),
    )) as { change: string }
    await setKeeping(db, maren, id, { sharing: 'private' }, later(2))
    expect(await undoMany(db, idris, change, later(3))).toEqual({ undone: 0, kept: 1 })
    expect((await loadQuestion(db, maren, id)).question.tags).toEqual(['mine'])
  })
})

it('texts of a quiz are cleaned when they are written, by whichever edit; what is clean stays as it was sent', async () => {
  const quiz = await createQuiz(db, maren, 'Clean', day)
  const { content } = (await loadQuiz(db, quiz)).quiz
  const section = content.sections[0]!.id
  const foul = '<p>Read<img src="https://elsewhere.example/seen.png" onerror="x()"><script>x()</script></p>'
  const clean = '<p>a &amp; b<br>c <strong>d</strong></p>'
  const row = (id: string, html: string) => ({ type: 'text' as const, id, html })
  await makeEdit(db, maren, quiz, 0, 'maren.1', { do: 'set', path: ['content', 'intro'], was: '', value: foul }, day)
  await makeEdit(db, maren, quiz, 1, 'maren.2', addRows(section, null, [row('t1', foul), row('t2', clean)]), day)
  const kept = (await loadQuiz(db, quiz)).quiz.content
  expect(JSON.stringify(kept)).not.toMatch(/elsewhere|script|onerror/)
  expect(kept.intro).toBe('<p>Read</p>')
  expect(kept.sections[0]!.rows.map((each) => (each.type === 'text' ? each.html : ''))).toEqual(['<p>Read</p>', clean])
})

describe('files', () => {
  const picture = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  )
  const idOf = (src: string) => src.split('/').at(-1)!
  it('a picture is for teachers, and for students on whose papers it stands', async () => {
    const { src } = await addMedia(db, maren, picture, day)
    expect((await loadMedia(db, idris, idOf(src))).type).toBe('image/png')
    await expect(loadMedia(db, nell, idOf(src))).rejects.toThrow(/not here/)
    const { id } = await addQuestion(
      db,
      maren,
      sampleQuestion('number', { stem: `<p>What is this? <img src="${src}" alt="A mark"></p>` }),
      day,
    )
    const quiz = await openedQuiz(db, 'picture', {}, {}, [
      newRow({ type: 'question', id: 'r1', question: id, points: 1 }),
    ])
    await expect(loadMedia(db, nell, idOf(src))).rejects.toThrow(/not here/)
    await startSitting(db, nell, quiz, { device: 'd1' }, day)
    expect((await loadMedia(db, nell, idOf(src))).type).toBe('image/png')
    await expect(loadMedia(db, await person(db, 'p-petra-lund'), idOf(src))).rejects.toThrow(/not here/)
  })
  it('a recording is for its student and for the teachers of the quiz that it was made in', async () => {
    const { id } = await addQuestion(db, maren, sampleQuestion('recording'), day)
    const quiz = await openedQuiz(db, 'recorded', {}, {}, [
      newRow({ type: 'question', id: 'r1', question: id, points: 1 }),
    ])
    const { attempt } = await startSitting(db, nell, quiz, { device: 'd1' }, day)
    const sound = Buffer.concat([Buffer.from('OggS'), Buffer.alloc(400, 7)])
    const { src } = await keepRecording(db, nell, attempt, sound, later(1))
    const { item } = (await itemsOf(db, attempt))[id]!
    await saveAnswers(
      db,
      nell.id,
      attempt,
      1,
      [{ item, response: { sound: src, seconds: 3 }, flagged: false, seq: 1 }],
      later(1),
    )
    for (const may of [nell, maren]) expect((await loadMedia(db, may, idOf(src))).bytes.length).toBe(404)
    for (const not of [idris, await person(db, 'p-petra-lund')])
      await expect(loadMedia(db, not, idOf(src))).rejects.toThrow(/not here/)
    await shareQuiz(db, maren, quiz, { email: 'idris.quayle@gannet.example' }, day)
    expect((await loadMedia(db, idris, idOf(src))).bytes.length).toBe(404)
    // One that was on its way when the paper was handed in arrives; nobody adds one for ever.
    await handIn(db, nell.id, attempt, 1, [], later(5))
    expect((await keepRecording(db, nell, attempt, Buffer.concat([sound, sound]), later(20))).src).toMatch(/media/)
    await expect(keepRecording(db, nell, attempt, sound, later(36))).rejects.toThrow(/handed in/)
  })
})

describe('who works in a quiz', () => {
  it('a colleague whom the owner allows lets others in, but allows nobody else to, and takes nobody out', async () => {
    const quiz = await createQuiz(db, maren, 'Shared on', day)
    await db.run(
      "INSERT INTO person (id, school_id, role, name, email, password_hash) SELECT 'p-third', school_id, role, 'Third Teacher', 'third@gannet.example', password_hash FROM person WHERE id = 'p-maren'",
    )
    const third = await person(db, 'p-third')
    await shareQuiz(db, maren, quiz, { email: 'idris.quayle@gannet.example', mayShare: true }, day)
    const on = { email: 'third@gannet.example' }
    await expect(shareQuiz(db, idris, quiz, { ...on, mayShare: true }, day)).rejects.toMatchObject({ status: 403 })
    await shareQuiz(db, idris, quiz, on, day)
    expect(await mayTeach(db, third.id, quiz)).toBe(true)
    await expect(shareQuiz(db, third, quiz, { email: 'maren.holt@gannet.example' }, day)).rejects.toMatchObject({
      status: 403,
    })
    await expect(unshareQuiz(db, idris, quiz, third.id, day)).rejects.toMatchObject({ status: 403 })
    // Sharing again by whoever may not allow it takes nothing from whom it was allowed.
    await shareQuiz(db, idris, quiz, { email: 'idris.quayle@gannet.example' }, day)
    expect((await quizView(db, maren, quiz, day)).teachers.map(({ id, mayShare }) => [id, mayShare])).toEqual([
      ['p-maren', true],
      ['p-idris', true],
      ['p-third', false],
    ])
    // The owner takes it back by sharing without it.
    await shareQuiz(db, maren, quiz, { email: 'idris.quayle@gannet.example' }, day)
    await expect(shareQuiz(db, idris, quiz, on, day)).rejects.toMatchObject({ status: 403 })
  })

  it('the owner lets in and takes out; a colleague may leave, and lets nobody in', async () => {
    const quiz = await createQuiz(db, maren, 'Shared', day)
    await shareQuiz(db, maren, quiz, { email: 'idris.quayle@gannet.example' }, day)
    expect(await mayTeach(db, idris.id, quiz)).toBe(true)
    await expect(shareQuiz(db, idris, quiz, { email: 'maren.holt@gannet.example' }, day)).rejects.toMatchObject({
      status: 403,
    })
    await expect(unshareQuiz(db, idris, quiz, maren.id, day)).rejects.toMatchObject({ status: 403 })
    await unshareQuiz(db, idris, quiz, idris.id, day)
    expect(await mayTeach(db, idris.id, quiz)).toBe(false)
    await shareQuiz(db, maren, quiz, { email: 'idris.quayle@gannet.example' }, day)
    await unshareQuiz(db, maren, quiz, idris.id, day)
    expect(await mayTeach(db, idris.id, quiz)).toBe(false)
    expect((await quizView(db, maren, quiz, day)).teachers.map(({ name, owner }) => [name, owner])).toEqual([
      ['Maren Holt', true],
    ])
  })
  it('a teacher is sent the students of the quiz and of their own classes, nobody else', async () => {
    const quiz = await createQuiz(db, idris, 'Students', day)
    const own = await db.rows<{ id: string }>(
      'SELECT DISTINCT e.person_id AS id FROM enrolment e JOIN class_teacher t ON t.class_id = e.class_id WHERE t.person_id = ?',
      [idris.id],
    )
    const all = await db.rows<{ id: string }>('SELECT DISTINCT person_id AS id FROM enrolment')
    const sent = (await quizView(db, idris, quiz, day)).students.map(({ id }) => id).sort()
    expect(sent).toEqual(own.map(({ id }) => id).sort())
    expect(sent.length).toBeLessThan(all.length)
  })
})

it('a student cannot tell a draft, a withdrawn quiz or that of another class from one that is not there', async () => {
  const draft = await createQuiz(db, maren, 'Draft', day)
  const others = await openedQuiz(db, 'others', {
    windows: [
      {
        id: 'w1',
        classes: ['c-saturday'],
        opens: day,
        closes: later(60),
        due: null,
        latestStart: null,
        groups: [],
        students: [],
        closedAt: null,
        password: null,
      },
    ],
  })
  const saturday = await db.one<{ id: string }>(
    "SELECT 1 AS id FROM enrolment WHERE class_id = 'c-saturday' AND person_id = ?",
    [nell.id],
  )
  expect(saturday).toBeUndefined()
  const said = await Promise.all(
    ['nowhere', draft, others].flatMap((quiz) =>
      [beforeSitting(db, nell, quiz, later(1)), startSitting(db, nell, quiz, { device: 'd1' }, later(1))].map((asked) =>
        asked.then(
          () => 'open',
          (error: { status: number; sentence: string }) => `${error.status} ${error.sentence}`,
        ),
      ),
    ),
  )
  expect(new Set(said)).toEqual(new Set(['404 This quiz is not here, or is not yours to see.']))
})
