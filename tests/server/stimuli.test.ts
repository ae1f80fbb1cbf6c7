import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newRow } from '../../core/quiz'
import type { Question, Stimulus } from '../../core/question'
import type { Database } from '../../server/database/database'
import { addQuestion, loadQuestion, reviseQuestion } from '../../server/domain/bank/questions/questions'
import { searchQuery, searchQuestions } from '../../server/domain/bank/finding/search'
import {
  addStimulus,
  listStimuli,
  loadStimulus,
  removeStimulus,
  reviseStimulus,
} from '../../server/domain/bank/material/stimuli'
import { giveFile } from '../../server/domain/imports/give'
import { viewBatch } from '../../server/domain/imports/batch'
import { stageFile } from '../../server/domain/imports/stage'
import { beginTaking } from '../../server/domain/imports/take'
import { undoImport } from '../../server/domain/imports/untake'
import { giveQuiz } from '../../server/domain/imports/tests'
import type { Person } from '../../server/people/people'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { reviewFor } from '../../server/domain/reviews/review'
import { openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { endSitting } from '../../server/domain/sittings/end'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz } from '../support/quiz'

let db: Database
let maren: Person
let silas: Person
beforeAll(async () => {
  db = (await freshDatabase('stimuli', day)).db
  ;[maren, silas] = [await person(db, 'p-maren'), await person(db, 'p-silas-penn')]
})
afterAll(() => db.close())

const passage = (name: string, html = '<p>The <script>x</script>passage</p>'): Stimulus => ({
  name,
  language: 'en',
  html,
  source: '',
  translations: { nl: '<p onclick="x()">De tekst</p>' },
})
const on = (stimulus: string, over: Partial<Question> = {}): Question =>
  ({ ...sampleQuestion('choice'), stimulus, ...over }) as Question

describe('what questions share', () => {
  it('is cleaned, versioned, and found by its words; a stale change loses nothing', async () => {
    const { id } = await addStimulus(db, maren, passage('Harbour bylaws'), later(1))
    expect((await loadStimulus(db, maren, id)).stimulus).toMatchObject({
      html: '<p>The passage</p>',
      translations: { nl: '<p>De tekst</p>' },
    })
    await reviseStimulus(db, maren, id, 1, passage('Harbour bylaws', '<p>Speed: six knots</p>'), later(2))
    await expect(reviseStimulus(db, maren, id, 1, passage('Lost'), later(3))).rejects.toMatchObject({ status: 409 })
    expect((await listStimuli(db, maren, 'six bylaws')).map((line) => line.id)).toEqual([id])
    await expect(
      addStimulus(
        db,
        maren,
        passage('Bad', '<p><span data-type="inline-math" data-latex="\\frac{"></span></p>'),
        later(3),
      ),
    ).rejects.toMatchObject({ status: 422 })
  })
  it('is not taken away while a question shares it, retired or not', async () => {
    const { id } = await addStimulus(db, maren, passage('In use'), later(1))
    const kept = await addQuestion(db, maren, on(id), later(2))
    await expect(removeStimulus(db, maren, id)).rejects.toMatchObject({
      status: 409,
      sentence: expect.stringMatching(/^1 question shares/) as string,
    })
    await reviseQuestion(db, maren, kept.id, 1, { ...on(id), stimulus: null }, later(3))
    await removeStimulus(db, maren, id)
    await expect(loadStimulus(db, maren, id)).rejects.toMatchObject({ status: 404 })
    await expect(addQuestion(db, maren, on(id), later(4))).rejects.toMatchObject({ status: 422 })
  })
})

describe('on a paper', () => {
  it('stands beside its questions, frozen with the edition; the language chosen holds on every device and in the review', async () => {
    const group = newRow({
      type: 'stimulus',
      id: 'g1',
      stimulus: 'st-forecast',
      questions: ['q-f-direction', 'q-f-force', 'q-f-backing'],
      draw: 3,
      points: 1,
    })
    const quiz = await openedQuiz(
      db,
      'quiz-stimulus',
      {
        release: {
          ...(await loadQuiz(db, 'quiz-chart')).quiz.rules.release,
          questions: { from: { at: 'handIn', offset: 0 }, until: null, once: false, ifPassed: false, wrongOnly: false },
        },
      },
      {},
      [group],
    )
    const { attempt } = await startSitting(db, silas, quiz, { device: 'd1' }, later(1))
    const first = await openSitting(db, silas.id, attempt, 'd1', later(2))
    expect(first.sheet.stimuli).toHaveLength(1)
    expect(first.sheet.stimuli[0]!.html).toContain('backing south-west')
    expect(first.sheet.languages).toEqual(['en', 'nl'])
    const forecast = (await loadStimulus(db, maren, 'st-forecast')).stimulus
    await reviseStimulus(db, maren, 'st-forecast', 1, { ...forecast, html: '<p>Changed since</p>' }, later(3))
    const dutch = await openSitting(db, silas.id, attempt, 'd2', later(4), 'nl')
    expect(dutch.sheet.stimuli[0]!.html).toContain('Uitgegeven')
    const entries = dutch.sheet.sections[0]!.entries.flatMap((entry) =>
      entry.type === 'question' ? [[entry.stem, entry.language]] : [],
    )
    expect(entries).toEqual([
      [expect.stringContaining('Waar komt de wind'), 'nl'],
      [expect.stringContaining('grootste windkracht'), 'nl'],
      [expect.stringContaining('The wind backs'), 'en'],
    ])
    expect((await openSitting(db, silas.id, attempt, 'd1', later(5))).sheet.language).toBe('nl')
    await endSitting(db, attempt, { by: 'student', lease: 3 }, later(6))
    const { sections } = await reviewFor(db, silas, attempt, later(7))
    expect(sections[0]!.questions.map((question) => question.stimulus?.language ?? null)).toEqual(['nl', null, null])
    expect(sections[0]!.questions[0]!.question!.stem).toContain('Waar komt')
  })
})

describe('in files', () => {
  it('a quiz goes out as a package and comes back as a quiz, with what its questions share, and can be taken back', async () => {
    const given = await giveQuiz(db, maren, 'quiz-tides', { as: 'qti-3.0' })
    const own = await stageFile(db, maren, given.bytes, 'own.zip', later(10))
    // The school's own questions are the same; the quiz comes as another in draft.
    expect(new Set(own.items.map((item) => item.fate))).toEqual(new Set(['same']))
    expect(own.tests).toEqual([{ title: 'Tides and tidal heights', questions: 17, notes: [] }])
    await (
      await beginTaking(db, maren, own.id, [0], () => later(11), [0])
    ).done
    const { quizzes } = await viewBatch(db, maren, own.id)
    const [before, after] = [
      (await loadQuiz(db, 'quiz-tides')).quiz.content,
      (await loadQuiz(db, quizzes[0]!.id)).quiz.content,
    ]
    const plain = (content: typeof before) =>
      content.sections.map((section) => ({
        ...section,
        id: '',
        rows: section.rows.map((row) => ({ ...row, id: '', title: '' })),
      }))
    expect(plain(after)).toEqual(plain(before))
    expect(await undoImport(db, maren, own.id, later(12))).toEqual({ removed: 0, kept: 0, quizzes: 0 })
    await expect(loadQuiz(db, quizzes[0]!.id)).rejects.toMatchObject({ status: 404 })
  })
  it('another school gets the stimulus once, and taking back takes it away again', async () => {
    const given = await giveFile(db, maren, { questions: ['q-f-direction', 'q-f-backing'], as: 'json' })
    await db.run("INSERT INTO school (id, name, zone, demo) VALUES ('other', 'Other', 'UTC', 0)")
    await db.run(
      "INSERT INTO person (id, school_id, role, name, email, password_hash) SELECT 'p-other', 'other', role, name, 'other@other.example', password_hash FROM person WHERE id = 'p-maren'",
    )
    const other = await person(db, 'p-other')
    const take = async () => {
      const batch = await stageFile(db, other, given.bytes, 'forecast.json', later(20))
      await (
        await beginTaking(
          db,
          other,
          batch.id,
          batch.items.map((_, i) => i),
          () => later(21),
        )
      ).done
      return batch
    }
    const first = await take()
    expect(await listStimuli(db, other, '')).toMatchObject([
      { name: 'Inshore forecast, Gannet Head to Sound Sands', questions: 2 },
    ])
    const { hits } = await searchQuestions(db, other, searchQuery.parse({ words: 'wind' }))
    expect(new Set(hits.map((hit) => hit.stimulus)).size).toBe(1)
    expect((await loadQuestion(db, other, hits[0]!.id)).question.translations).toBeDefined()
    expect((await take()).items.map((item) => item.fate)).toEqual(['same', 'same'])
    expect(await listStimuli(db, other, '')).toHaveLength(1)
    await undoImport(db, other, first.id, later(22))
    expect(await listStimuli(db, other, '')).toEqual([])
  })
})
