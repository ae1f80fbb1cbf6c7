/** Whole jobs around the bank: what questions share, banks of others, objectives, a test of a file. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import { addTo } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { giveQuiz } from '../../server/domain/imports/tests'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { freshDatabase, person } from '../support/database'
import { startServer, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let teacher: Visitor

beforeAll(async () => {
  const fresh = await freshDatabase('e2e_bank', iso(Date.now()))
  db = fresh.db
  server = await startServer(fresh.url)
  teacher = await visitor(server.address, 'Maren Holt')
})
afterAll(async () => {
  await closeBrowser()
  await server.stop()
  await db.close()
})

const box = (visit: Visitor, name: string) => visit.page.getByRole('textbox', { name, exact: true })
const soon = (hours: number) => iso(Date.now() + hours * 3_600_000)
const window = (classes: string[]) => ({
  id: 'w1',
  classes,
  opens: soon(-1),
  closes: soon(24),
  due: null,
  latestStart: null,
  groups: [],
  students: [],
  closedAt: null,
  password: null,
})

describe('a stimulus', () => {
  it('is written, gets its questions, goes into a quiz as a group, and stands beside them on a phone', async () => {
    const { page } = teacher
    await page.goto('/bank/stimuli/new')
    await page.getByLabel('Name, for teachers').fill('Log of the Sea Thistle')
    await box(teacher, 'What the questions share').fill('0900 left the harbour. 1130 passed Gannet Head, log 12.5.')
    await page.getByText('Languages: English').click()
    await page.getByLabel('Another language').fill('nl')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await box(teacher, 'In Dutch').fill('0900 haven verlaten. 1130 Gannet Head gepasseerd, log 12,5.')
    await page.getByRole('button', { name: 'Keep in the bank' }).click()
    await page.waitForURL(/\/bank\/stimuli\/[a-z0-9]{14}$/)
    for (const [kind, stem] of [
      ['trueFalse', 'They were under way before ten.'],
      ['yesNo', 'Did they pass the head?'],
    ] as const) {
      await page.getByRole('link', { name: 'Stimuli' }).first().click()
      await page.getByRole('link', { name: 'Log of the Sea Thistle' }).click()
      await page.getByLabel('Kind').selectOption(kind)
      await page.getByRole('button', { name: 'Write a question on it' }).click()
      await page.waitForURL(/\/bank\/new/)
      await box(teacher, 'Question').fill(stem)
      await page.getByRole('region', { name: 'As a student sees it' }).getByText('log 12.5').waitFor()
      await page.getByRole('button', { name: 'Keep in the bank' }).click()
      await page.waitForURL(/\/bank\/[a-z0-9]{14}$/)
      await page.getByText('version 1').first().waitFor()
      await page.getByRole('link', { name: 'Log of the Sea Thistle' }).click()
    }
    const maren = await person(db, 'p-maren')
    await createQuiz(db, maren, 'The log', iso(Date.now()), 'quiz-log')
    await page.goto('/quizzes/quiz-log/compose')
    await page.getByRole('button', { name: /Add a stimulus with its questions/ }).click()
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /Log of the Sea Thistle/ })
      .click()
    await page.getByText('All 2 on “Log of the Sea Thistle”').waitFor()
    await page.getByText('Saved', { exact: false }).first().waitFor()
    const { revision } = await loadQuiz(db, 'quiz-log')
    await makeEdit(
      db,
      maren,
      'quiz-log',
      revision,
      'log000.1',
      addTo(['rules', 'windows'], null, [window(['c-tuesday'])]),
      iso(Date.now()),
    )
    await openQuiz(db, maren, 'quiz-log', iso(Date.now()))
    const student = await visitor(server.address, 'Silas Penn', { width: 390, height: 844 })
    await student.page.goto('/my/quiz-log')
    await student.page.getByRole('button', { name: /Start/ }).click()
    await student.page.waitForURL(/\/sit\//)
    const shared = student.page.getByRole('region', { name: 'For questions 1 to 2' })
    await shared.getByText('log 12.5').waitFor()
    await student.page.getByText('True', { exact: true }).click()
    await student.page.getByText(/All answers kept/).waitFor()
    expect(await student.page.getByLabel('Read in').count()).toBe(0)
    expect([...teacher.faults, ...student.faults]).toEqual([])
    await student.context.close()
  })
})

describe('a bank of others', () => {
  it('is found in the same search; what goes into a quiz is taken as a copy; a fault comes back corrected', async () => {
    const { page } = teacher
    const maren = await person(db, 'p-maren')
    await createQuiz(db, maren, 'From others', iso(Date.now()), 'quiz-others')
    await page.goto('/quizzes/quiz-others/compose')
    await page.getByRole('searchbox', { name: 'Find questions' }).fill('flashes group east cardinal')
    const finder = page.getByRole('region', { name: 'Finder' })
    await finder.getByText('How many flashes in a group').click()
    await finder.getByRole('button', { name: /^Add 1/ }).click()
    await page
      .getByRole('listitem')
      .filter({ hasText: 'How many flashes in a group' })
      .filter({ has: page.locator('.drag-handle') })
      .waitFor()
    await page.getByText('Saved', { exact: false }).first().waitFor()
    const copy = (await db.one<{ question_id: string }>('SELECT question_id FROM question_copy'))!.question_id
    expect(
      (await db.one<{ question_id: string }>("SELECT question_id FROM quiz_question WHERE quiz_id = 'quiz-others'"))!
        .question_id,
    ).toBe(copy)
    await page.goto(`/bank/${copy}`)
    await page.getByRole('button', { name: 'Report a fault to its keeper' }).click()
    await page.getByLabel('What is wrong').fill('An east cardinal mark shows three.')
    await page.getByRole('button', { name: 'Report it' }).click()
    await page.getByText(/Reported to its keeper/).waitFor()
    await page.goto('/bank/outside')
    await page.getByRole('button', { name: 'Look for corrections' }).click()
    await page.getByText('1 question of 20 corrected.').waitFor()
    await page.getByRole('region', { name: 'Corrections' }).getByRole('link').click()
    await page.getByRole('button', { name: 'Take the correction over' }).click()
    await page.getByText('version 2').first().waitFor()
    expect(await page.getByRole('textbox', { name: 'Number', exact: true }).inputValue()).toBe('3')
    expect(teacher.faults).toEqual([])
  })
})

describe('objectives', () => {
  it('come in from a file, are given to a question, and filter the bank with a count', async () => {
    const { page } = teacher
    await page.goto('/bank/objectives')
    await page.getByLabel('Bring in a file').setInputFiles({
      name: 'ropework.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('code,title,parent\n30,Ropework,\n30.1,Ties a bowline,30\n'),
    })
    await page.getByRole('button', { name: 'Bring in 2' }).click()
    await page.getByText('2 objectives added, 0 changed.').waitFor()
    await page.goto('/bank/new?kind=trueFalse')
    await box(teacher, 'Question').fill('A bowline holds.')
    await page.getByRole('button', { name: 'Add an objective' }).click()
    await page.getByRole('menuitem', { name: '30.1 Ties a bowline' }).click()
    await page.getByLabel('Cognitive depth').selectOption('recall')
    await page.getByRole('button', { name: 'Keep and write another like it' }).click()
    await page.getByText('Kept in the bank.').waitFor()
    // What was used just now is offered first, and the next question has it already.
    await page.getByText('30.1 Ties a bowline', { exact: false }).first().waitFor()
    await page.goto('/bank')
    await page.getByRole('button', { name: '+ filter' }).click()
    await page.getByRole('checkbox', { name: 'Cognitive depth: recall 1' }).check()
    await page.getByRole('status').getByText('1 question', { exact: true }).waitFor()
    await page.getByText('A bowline holds.').waitFor()
    expect(teacher.faults).toEqual([])
  })
})

describe('a colleague’s doubt', () => {
  it('reaches the owner on Today, marks the question in the finder, and goes when it is settled', async () => {
    const colleague = await visitor(server.address, 'Idris Quayle')
    await colleague.page.goto('/bank/q-datum')
    await colleague.page.getByLabel('A remark').fill('Is it not the lowest, everywhere?')
    await colleague.page.getByLabel('something is wrong here').check()
    await colleague.page.getByRole('button', { name: 'Say it' }).click()
    await colleague.page.getByText('! Is it not the lowest, everywhere?').waitFor()
    const { page } = teacher
    await page.goto('/quizzes/quiz-tides/compose')
    await page.getByRole('region', { name: 'Finder' }).getByText('! a colleague says something is wrong').waitFor()
    await page.goto('/today')
    await page
      .getByRole('region', { name: 'Colleagues say that something is wrong' })
      .getByRole('link', { name: /What does chart datum/ })
      .click()
    await page.getByRole('button', { name: 'settle' }).click()
    await page.getByText(/settled by Maren Holt/).waitFor()
    await page.goto('/today')
    await page.getByRole('heading', { name: 'Under way' }).waitFor()
    expect(await page.getByText('Colleagues say that something is wrong').count()).toBe(0)
    expect([...teacher.faults, ...colleague.faults]).toEqual([])
    await colleague.context.close()
  })
})

describe('who is in a hurry', () => {
  it('goes on while a question is being kept: it is kept, nothing is asked, and they are where they wanted', async () => {
    const { page } = teacher
    await page.goto('/bank/new?kind=trueFalse')
    await box(teacher, 'Question').fill('Kept while going on.')
    let release = () => {}
    const held = new Promise<void>((done) => {
      release = done
    })
    await page.route('**/api/questions', async (route) => {
      if (route.request().method() === 'POST') await held
      await route.continue()
    })
    const sent = page.waitForRequest((request) => /api\/questions$/.test(request.url()) && request.method() === 'POST')
    await page.getByRole('button', { name: 'Keep in the bank' }).click()
    await sent
    await page.getByRole('link', { name: 'Classes' }).click()
    expect(page.url()).toContain('/bank/new')
    release()
    await page.waitForURL(/\/classes$/)
    await page.getByRole('heading', { name: 'Classes' }).waitFor()
    expect(await page.getByText('Leave without keeping?').count()).toBe(0)
    await page.unroute('**/api/questions')
    expect(
      await db.rows("SELECT question_id FROM question_version WHERE body LIKE '%Kept while going on.%'"),
    ).toHaveLength(1)
    expect(page.url()).toMatch(/\/classes$/)
    expect(teacher.faults).toEqual([])
  })
})

describe('a test of a file', () => {
  it('becomes a quiz in draft, and is taken back whole', async () => {
    const { page } = teacher
    const maren = await person(db, 'p-maren')
    const { bytes } = await giveQuiz(db, maren, 'quiz-tides', { as: 'qti-2.2' })
    await page.goto('/bank/import')
    await page
      .getByLabel('Choose a file')
      .setInputFiles({ name: 'tides.zip', mimeType: 'application/zip', buffer: bytes })
    await page
      .getByRole('checkbox', { name: /make the test “Tides and tidal heights” a quiz of 17 questions/ })
      .waitFor()
    // A question is looked at whole before it is taken, and an answer to it tried.
    await page.getByRole('button', { name: /^open it: What does chart datum/ }).click()
    const look = page.getByRole('region', { name: 'As a student sees it' })
    await look.getByText('Lowest astronomical tide').click()
    await look.getByText('✓ right').waitFor()
    await page.getByRole('button', { name: /^close it: What does chart datum/ }).click()
    await look.waitFor({ state: 'detached' })
    await page.getByRole('checkbox', { name: /^Take What does chart datum/ }).check()
    await page.getByRole('button', { name: 'Bring in 1 question' }).click()
    await page.getByRole('link', { name: 'Open the quiz “Tides and tidal heights”' }).waitFor()
    const [made] = await db.rows<{ id: string }>(
      "SELECT id FROM quiz WHERE title = 'Tides and tidal heights' AND id <> 'quiz-tides'",
    )
    await page.getByRole('button', { name: 'Take all of it back' }).click()
    await page.getByText(/^Taken back/).waitFor()
    expect(await db.one('SELECT 1 AS yes FROM quiz WHERE id = ?', [made!.id])).toBeUndefined()
    expect(teacher.faults).toEqual([])
  })
})
