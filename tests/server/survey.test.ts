import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newRow } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { facilitiesOf } from '../../server/domain/bank/finding/facilities'
import { addQuestion } from '../../server/domain/bank/questions/questions'
import { surveyFigures } from '../../server/domain/marks/answers'
import { marksTable } from '../../server/domain/marks/marks'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { reviewFor } from '../../server/domain/reviews/review'
import { handIn } from '../../server/domain/sittings/hand-in'
import { startSitting } from '../../server/domain/sittings/start'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz, rulesEdit } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('survey', day)).db
})
afterAll(() => db.close())

const students = ['p-nell-ashdown', 'p-petra-lund', 'p-silas-penn']
const handedIn = {
  from: { at: 'handIn' as const, offset: 0 },
  until: null,
  once: false,
  ifPassed: false,
  wrongOnly: false,
}

describe('a survey', () => {
  it('is sat and counted, and nothing of it is marked or shown as right', async () => {
    const maren = await person(db, 'p-maren')
    await addQuestion(db, maren, sampleQuestion('choice', { keyless: true, stem: '<p>How was it?</p>' }), day, 'sv-how')
    await addQuestion(db, maren, sampleQuestion('text', { keyless: true, stem: '<p>In a word?</p>' }), day, 'sv-word')
    const rows = ['sv-how', 'sv-word', 'q-datum'].map((question) =>
      newRow({ type: 'question', id: `r-${question}`, question, points: 1 }),
    )
    const { release } = (await loadQuiz(db, 'quiz-chart')).quiz.rules
    const all = Object.fromEntries(Object.keys(release).map((name) => [name, handedIn])) as typeof release
    const quiz = await openedQuiz(db, 'survey', { counts: 'survey', release: all }, {}, rows)
    const before = await facilitiesOf(db, ['q-datum'])
    const attempts: string[] = []
    for (const [i, student] of students.entries()) {
      const { attempt } = await startSitting(db, await person(db, student), quiz, { device: 'd1' }, day)
      const items = await itemsOf(db, attempt)
      const datum = items['q-datum']!
      const answers = [
        { item: items['sv-how']!.item, response: { chosen: [items['sv-how']!.options[i ? 'a' : 'b']!] }, seq: 1 },
        { item: items['sv-word']!.item, response: i < 2 ? { text: i ? 'Long' : 'long ' } : null, seq: 2 },
        { item: datum.item, response: { chosen: [datum.options.a!] }, seq: 3 },
      ].map((each) => ({ ...each, flagged: false }))
      await handIn(db, student, attempt, 1, answers, later(5))
      attempts.push(attempt)
    }
    const figures = await surveyFigures(db, quiz, later(10))
    expect(figures.papers).toBe(3)
    const [how, word] = figures.questions
    expect(how).toMatchObject({ id: 'sv-how', asked: 3, answered: 3, counts: [{ n: 2 }, { n: 1 }, { n: 0 }, { n: 0 }] })
    expect(word).toMatchObject({ asked: 3, answered: 2 })
    expect(JSON.stringify(figures)).not.toMatch(/Nell|p-nell/)
    const review = await reviewFor(
      db,
      { id: students[0]!, name: 'Nell Ashdown', zone: 'Europe/London' },
      attempts[0]!,
      later(11),
    )
    expect(review).toMatchObject({ score: null, grade: null, classFigures: null, certificate: null })
    expect(review.sections[0]!.questions).toMatchObject([
      { mark: null, key: null, answer: { text: 'Option b' } },
      { mark: null, key: null },
      { mark: null, key: null },
    ])
    const table = await marksTable(db, quiz, later(12))
    expect(table).toMatchObject({ survey: true })
    expect(table.students.every(({ percent, passed }) => percent === null && passed === null)).toBe(true)
    // What was answered in a survey says nothing of how hard a question is.
    expect(await facilitiesOf(db, ['q-datum'])).toEqual(before)
  })
  it('stays one once somebody has started', async () => {
    const maren = await person(db, 'p-maren')
    const { revision } = await loadQuiz(db, 'survey')
    const edit = await rulesEdit(db, 'survey', { counts: 'score' })
    await expect(makeEdit(db, maren, 'survey', revision, 's.9', edit, later(13))).rejects.toMatchObject({
      code: 'survey',
    })
    const fresh = await openedQuiz(db, 'not-begun', { counts: 'survey' })
    const { revision: on } = await loadQuiz(db, fresh)
    await makeEdit(db, maren, fresh, on, 's.8', await rulesEdit(db, fresh, { counts: 'score' }), later(13))
    expect((await loadQuiz(db, fresh)).quiz.rules.counts).toBe('score')
  })
})
