/** What a quiz is made of beyond picked questions: written in place, found by a condition, taken from earlier quizzes, parted, closed with words; and how it is sat. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import {
  addRows,
  addTo,
  allRows,
  editTo,
  newRow,
  newSection,
  setAt,
  together,
  type Content,
  type Row,
} from '../../core/quiz'
import { addQuestion } from '../../server/domain/bank/questions/questions'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { sampleQuestion } from '../fixtures/core'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { person } from '../support/database'
import { sharedScene } from '../support/scene'

const { db, address, now } = sharedScene()
let maren: Visitor
beforeAll(async () => {
  maren = await visitor(address, 'Maren Holt')
})
afterAll(async () => {
  await closeBrowser()
  await db.close()
})

const question = (id: string, more: object = {}): Row =>
  newRow({ type: 'question', id: `r-${id}`, question: id, points: 1, ...more })
async function quizOf(id: string, rows: Row[]): Promise<string> {
  const owner = await person(db, 'p-maren')
  await createQuiz(db, owner, `Parts ${id}`, now, id)
  const { quiz } = await loadQuiz(db, id)
  if (rows.length) await makeEdit(db, owner, id, 0, 'scene.1', addRows(quiz.content.sections[0]!.id, null, rows), now)
  return id
}
const contentOf = async (id: string): Promise<Content> => (await loadQuiz(db, id)).quiz.content
const rowsOf = async (id: string) => allRows(await contentOf(id))

it('a question is written in place, changed for the bank, and changed as a copy; what was not kept is found again', async () => {
  const id = await quizOf('written', [question('q-datum')])
  const { page } = maren
  await page.goto(`/quizzes/${id}/compose`)
  await page.getByRole('button', { name: 'Write a question here' }).click()
  await page.getByRole('menuitem', { name: 'Number' }).click()
  const panel = page.getByRole('dialog')
  await panel.getByLabel('Question', { exact: true }).click()
  await page.keyboard.type('How many metres are two fathoms?')
  await panel.getByRole('button', { name: 'Close' }).click()
  await page.getByRole('button', { name: 'Write a question here' }).click()
  await page.getByRole('menuitem', { name: 'Number' }).click()
  await panel.getByText('How many metres are two fathoms?').first().waitFor()
  await panel.getByRole('button', { name: 'Keep in the bank and put in' }).click()
  await expect.poll(async () => (await rowsOf(id)).length).toBe(2)
  const row = page.locator('[data-row]').filter({ hasText: 'two fathoms' })
  await row.getByRole('button', { expanded: false }).first().click()
  await row.getByRole('button', { name: 'Change it here' }).click()
  await panel.getByLabel('Question', { exact: true }).click()
  await page.keyboard.press('Control+End')
  await page.keyboard.type(' About.')
  await panel.getByRole('button', { name: 'For the bank, as version 2' }).click()
  await page.getByText(/Version 2 is in the bank/).waitFor()
  await row.getByRole('button', { name: 'Change it here' }).click()
  await panel.getByLabel('Question', { exact: true }).click()
  await page.keyboard.press('Control+End')
  await page.keyboard.type(' Roughly.')
  const before = await rowsOf(id)
  await panel.getByRole('button', { name: 'A copy for this quiz only' }).click()
  await expect.poll(async () => (await rowsOf(id))[1]).not.toEqual(before[1])
  const [, copied] = await rowsOf(id)
  const kept = await db.rows<{ version: number; sharing: string; title: string }>(
    'SELECT version, sharing, title FROM question WHERE id IN (?) ORDER BY version DESC',
    [[before[1], copied].map((each) => (each as { question: string }).question)],
  )
  expect(kept).toEqual([
    { version: 2, sharing: 'school', title: 'How many metres are two fathoms? About.' },
    { version: 1, sharing: 'private', title: 'How many metres are two fathoms? About. Roughly.' },
  ])
  expect(maren.faults).toEqual([])
})

it('a pool by a condition holds what the search finds, follows the bank, and becomes a list', async () => {
  const id = await quizOf('by-condition', [question('q-datum')])
  const { page } = maren
  await page.goto(`/quizzes/${id}/compose`)
  await page.getByLabel('Find questions').fill('twelfths')
  await page.getByRole('button', { name: 'A pool of what this finds' }).click()
  await page.getByRole('button', { name: 'Make the pool' }).click()
  const row = page.locator('[data-row]').filter({ hasText: 'found' })
  const found = async () => Number(/the (\d+) found/.exec((await row.textContent()) ?? '')?.[1] ?? -1)
  await expect.poll(found).toBeGreaterThan(1)
  const before = await found()
  await addQuestion(
    db,
    await person(db, 'p-maren'),
    sampleQuestion('choice', { stem: '<p>One more by the twelfths</p>' }),
    now,
  )
  await row.getByRole('button', { expanded: false }).first().click()
  await row.getByLabel('Points each').fill('2')
  await page.keyboard.press('Tab')
  await expect.poll(found).toBe(before + 1)
  await row.getByText('One more by the twelfths').waitFor()
  await row.getByRole('button', { name: 'keep what it holds now, as a list' }).click()
  await expect
    .poll(async () => (await rowsOf(id)).find((each) => each.type === 'pool'))
    .toMatchObject({ condition: null, points: 2 })
  expect(((await rowsOf(id))[1] as { questions: string[] }).questions).toHaveLength(before + 1)
})

it('rows are taken from an earlier quiz, found by a word, in one step that can be undone', async () => {
  await quizOf('lender', [question('q-datum'), question('q-cover', { required: true })])
  const id = await quizOf('borrower', [question('q-clearing')])
  const { page } = maren
  await page.goto(`/quizzes/${id}/compose`)
  await page.getByRole('button', { name: 'From an earlier quiz' }).click()
  const panel = page.getByRole('dialog')
  await panel.getByLabel('Find a quiz').fill('lender')
  await panel.getByRole('button', { name: /Parts lender/ }).click()
  await panel.getByRole('checkbox', { name: 'The whole section Section 1' }).check()
  await panel.getByRole('button', { name: /^Take 2 rows/ }).click()
  await expect.poll(async () => (await rowsOf(id)).length).toBe(3)
  expect((await rowsOf(id))[2]).toMatchObject({ question: 'q-cover', required: true })
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect.poll(async () => (await rowsOf(id)).length).toBe(1)
})

it('a page break parts the section by hand, and closing words are set for bands with their gaps told', async () => {
  const id = await quizOf('parted', [question('q-datum'), question('q-cover')])
  const { page } = maren
  await page.goto(`/quizzes/${id}/compose`)
  await page.locator('[data-row="r-q-datum"]').click()
  await page.getByRole('button', { name: 'Break the page after row 1' }).click()
  await expect
    .poll(async () => (await contentOf(id)).sections[0])
    .toMatchObject({
      pages: { by: 'breaks' },
      rows: [{ question: 'q-datum' }, { type: 'break' }, { question: 'q-cover' }],
    })
  await page.getByText('What students read after handing in').click()
  await page.getByLabel('Words from this score on').fill('eighty')
  await page.getByRole('button', { name: 'Add words from there' }).click()
  await page.getByText('Write a boundary in percent').waitFor()
  await page.getByLabel('Words from this score on').fill('85 %')
  await page.getByRole('button', { name: 'Add words from there' }).click()
  await page.getByText('Below 85 % nothing is said.').waitFor()
  await page.getByLabel('Words from 85 %', { exact: true }).click()
  await page.keyboard.type('Well done, {name}')
  await expect
    .poll(async () => (await contentOf(id)).closing)
    .toMatchObject([{ from: 85, html: '<p>Well done, {name}</p>' }])
})

/** Opens a quiz to Tuesday evening, without an end. */
async function openToTuesday(id: string): Promise<void> {
  const owner = await person(db, 'p-maren')
  const { revision } = await loadQuiz(db, id)
  const window = {
    id: 'w1',
    classes: ['c-tuesday'],
    opens: now,
    closes: null,
    due: null,
    latestStart: null,
    groups: [],
    students: [],
    closedAt: null,
    password: null,
  }
  await makeEdit(db, owner, id, revision, 'scene.9', addTo(['rules', 'windows'], null, [window]), now)
  await openQuiz(db, owner, id, now)
}

it('a PDF stands in the instructions, and is kept by those who sit it: the paper stays where it is', async () => {
  const id = await quizOf('with-pdf', [question('q-clearing')])
  const { page } = maren
  await page.goto(`/quizzes/${id}/compose`)
  await page.getByText('Title, objectives, and what students read first').click()
  await page.getByRole('textbox', { name: 'Instructions' }).waitFor()
  const pdf = Buffer.from('%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF')
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('toolbar', { name: 'Tools for Instructions' }).getByRole('button', { name: /PDF/ }).click()
  await (await chooser).setFiles({ name: 'Tide tables.pdf', mimeType: 'application/pdf', buffer: pdf })
  const dialog = page.getByRole('dialog')
  expect(await dialog.getByLabel('What it is called').inputValue()).toBe('Tide tables')
  await dialog.getByRole('button', { name: 'Put it in' }).click()
  await expect
    .poll(async () => (await contentOf(id)).intro)
    .toMatch(/^<p><a href="\/api\/media\/[a-f0-9]{64}" download="Tide tables.pdf">Tide tables<\/a>/)
  await openToTuesday(id)
  const silas = await visitor(address, 'Silas Penn')
  await silas.page.goto(`/my/${id}`)
  const download = silas.page.waitForEvent('download')
  await silas.page.getByRole('link', { name: 'Tide tables' }).click()
  expect((await download).suggestedFilename()).toBe('Tide tables.pdf')
  expect(silas.page.url()).toContain(`/my/${id}`)
  const href = (await silas.page.getByRole('link', { name: 'Tide tables' }).getAttribute('href'))!
  const status = (who: Visitor) => who.page.evaluate(async (path) => (await fetch(path)).status, href)
  const saturday = await visitor(address, 'Greta Vance')
  expect([await status(silas), await status(saturday)]).toEqual([200, 404])
  expect(silas.faults).toEqual([])
})

it('a section with a clock of its own is entered through its door, told when it is left, and closed', async () => {
  const owner = await person(db, 'p-maren')
  await quizOf('clocked', [])
  const { quiz, revision } = await loadQuiz(db, 'clocked')
  const sections = [
    newSection({ id: 'a', title: 'Open part', rows: [question('q-clearing', { required: true })] }),
    newSection({ id: 'b', title: 'Timed part', limit: 10, rows: [question('q-cover')] }),
  ]
  const content = { ...quiz.content, sections, after: '<p>Take out your book, {name}.</p>' }
  await makeEdit(db, owner, 'clocked', revision, 'scene.2', editTo(quiz, { ...quiz, content })!, now)
  const opened = (await loadQuiz(db, 'clocked')).quiz
  await makeEdit(
    db,
    owner,
    'clocked',
    revision + 1,
    'scene.3',
    together([
      addTo(['rules', 'windows'], null, [
        {
          id: 'w1',
          classes: ['c-tuesday'],
          opens: now,
          closes: null,
          due: null,
          latestStart: null,
          groups: [],
          students: [],
          closedAt: null,
          password: null,
        },
      ]),
      setAt(opened, ['rules', 'limit'], 60),
    ])!,
    now,
  )
  await openQuiz(db, owner, 'clocked', now)
  const silas = await visitor(address, 'Silas Penn')
  const { page } = silas
  await page.reload()
  await page.locator('li').filter({ hasText: 'Parts clocked' }).getByRole('link', { name: 'Look, then start' }).click()
  await page.getByText('“Timed part” has a clock of its own: 10 minutes').waitFor()
  await page.getByRole('button', { name: 'Start now' }).click()
  await page.locator('article').waitFor()
  await page.getByText('has to be answered').waitFor()
  await page.getByRole('button', { name: 'Hand in…' }).first().click()
  const dialog = page.getByRole('dialog')
  await dialog.getByText('You have not entered “Timed part” yet.').waitFor()
  expect(await dialog.getByRole('button', { name: 'Hand in', exact: true }).isDisabled()).toBe(true)
  await dialog.getByRole('button', { name: 'Go on writing' }).click()
  await page.getByRole('textbox').fill('Clearing bearing')
  await page.getByRole('button', { name: 'Next page' }).click()
  // Without a connection the door stays shut, and says why.
  await silas.context.setOffline(true)
  await page.getByRole('button', { name: 'Enter “Timed part”' }).click()
  await page.getByText('There is no connection to the server.').waitFor()
  expect(await page.locator('article').count()).toBe(0)
  await silas.context.setOffline(false)
  await page.getByRole('button', { name: 'Enter “Timed part”' }).click()
  await page.locator('article').waitFor()
  await page.getByText('of this section').waitFor()
  await page.getByRole('textbox').fill('2.3')
  await page.getByText(/All answers kept/).waitFor()
  // A reload comes back into the section: its clock has gone on.
  await page.reload()
  await page.locator('article').waitFor()
  await page.getByText('of this section').waitFor()
  await page.getByRole('button', { name: 'Previous page' }).click()
  await dialog.getByText('it is closed for good').waitFor()
  await dialog.getByRole('button', { name: 'Leave and go on' }).click()
  await page.getByText('Page 1 of 2').waitFor()
  await page.getByRole('button', { name: 'Next page' }).click()
  await page.getByText('This section is closed').waitFor()
  expect(await page.getByRole('textbox').isEditable()).toBe(false)
  await page.getByRole('button', { name: 'Hand in…' }).first().click()
  await dialog.getByRole('button', { name: 'Hand in', exact: true }).click()
  await page.waitForURL('**/review/*')
  await page.getByText('Take out your book, Silas Penn.').waitFor()
  const [attempt] = await db.rows<{ score: string }>("SELECT score FROM attempt WHERE quiz_id = 'clocked'")
  expect(attempt!.score).toBe('2')
})

it('what has to be answered in a section whose time is over does not keep from handing in', async () => {
  const owner = await person(db, 'p-maren')
  await quizOf('time-over', [])
  const { quiz, revision } = await loadQuiz(db, 'time-over')
  const window = {
    id: 'w1',
    classes: ['c-tuesday'],
    opens: now,
    closes: null,
    due: null,
    latestStart: null,
    groups: [],
    students: [],
    closedAt: null,
    password: null,
  }
  const sections = [
    newSection({ id: 'b', title: 'Timed part', limit: 10, rows: [question('q-cover', { required: true })] }),
  ]
  const next = { content: { ...quiz.content, sections }, rules: { ...quiz.rules, windows: [window], limit: 60 } }
  await makeEdit(db, owner, 'time-over', revision, 'scene.2', editTo(quiz, next)!, now)
  await openQuiz(db, owner, 'time-over', now)
  const petra = await visitor(address, 'Petra Lund')
  const { page } = petra
  await page.reload()
  await page
    .locator('li')
    .filter({ hasText: 'Parts time-over' })
    .getByRole('link', { name: 'Look, then start' })
    .click()
  await page.getByRole('button', { name: 'Start now' }).click()
  await page.getByRole('button', { name: 'Enter “Timed part”' }).click()
  await page.locator('article').waitFor()
  await page.getByRole('button', { name: 'Hand in…' }).first().click()
  const dialog = page.getByRole('dialog')
  expect(await dialog.getByRole('button', { name: 'Hand in', exact: true }).isDisabled()).toBe(true)
  const past = new Date(Date.parse(now) - 60_000).toISOString().slice(0, 23).replace('T', ' ')
  const [attempt] = await db.rows<{ id: string }>("SELECT id FROM attempt WHERE quiz_id = 'time-over'")
  await db.run('UPDATE attempt_section SET deadline = ?, stops_at = ? WHERE attempt_id = ?', [past, past, attempt!.id])
  await db.run('UPDATE answer SET stops_at = ? WHERE attempt_id = ?', [past, attempt!.id])
  // What is written before the page knows is told, and does not stand as if it were kept.
  await dialog.getByRole('button', { name: 'Go on writing' }).click()
  await page.getByRole('textbox').fill('2.3')
  await page.getByText('This section had closed').waitFor()
  await page.getByText('This section is closed').waitFor()
  expect(await page.getByRole('textbox').inputValue()).toBe('')
  await page.getByRole('button', { name: 'Hand in…' }).first().click()
  await dialog.getByRole('button', { name: 'Hand in', exact: true }).click()
  await page.waitForURL('**/review/*')
})
