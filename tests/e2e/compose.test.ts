/** Composing as teachers do it: by blueprint, by choosing rows, with a pass mark by judges, together, back in time; on a phone. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { allRows } from '../../core/quiz'
import { addRows } from '../../core/quiz'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { person } from '../support/database'
import { sharedScene } from '../support/scene'

const { db, address, now } = sharedScene()
let maren: Visitor
let idris: Visitor
beforeAll(async () => {
  maren = await visitor(address, 'Maren Holt')
  idris = await visitor(address, 'Idris Quayle')
})
afterAll(async () => {
  await closeBrowser()
  await db.close()
})

/** A quiz of both teachers, with some questions in it. */
async function quizNamed(id: string, questions: string[]): Promise<string> {
  const owner = await person(db, 'p-maren')
  await createQuiz(db, owner, `Composed ${id}`, now, id)
  await db.run("INSERT INTO quiz_teacher (quiz_id, person_id) VALUES (?, 'p-idris')", [id])
  const { quiz } = await loadQuiz(db, id)
  const rows = questions.map((question) => ({
    type: 'question' as const,
    id: `r-${question}`,
    question,
    points: 1,
    fixed: false,
  }))
  if (rows.length) await makeEdit(db, owner, id, 0, 'scene.1', addRows(quiz.content.sections[0]!.id, null, rows), now)
  return id
}
const content = async (id: string) => (await loadQuiz(db, id)).quiz.content
const rowsOf = async (id: string) => allRows(await content(id))
const types = async (id: string) => (await rowsOf(id)).map(({ type }) => type)

it('fills a quiz by a blueprint with the keyboard alone: lines, proposal, taken in part, taken back', async () => {
  const id = await quizNamed('filled', [])
  const { page } = maren
  await page.goto(`/quizzes/${id}/fill`)
  await page.getByLabel('any objective, any kind').focus()
  await page.keyboard.type('5')
  await page.getByLabel('Questions of difficulty 2').focus()
  await page.keyboard.type('2-3')
  await page.getByRole('button', { name: 'Find them' }).focus()
  await page.keyboard.press('Enter')
  const proposal = page.getByRole('region', { name: 'Proposal' })
  await proposal.getByRole('button', { name: 'Take 5 into the running order' }).waitFor()
  await proposal.getByRole('checkbox').first().focus()
  await page.keyboard.press('Space')
  await proposal.getByRole('button', { name: 'Take 4 into the running order' }).focus()
  await page.keyboard.press('Enter')
  await page.getByText('4 questions taken into the running order.').waitFor()
  await expect.poll(async () => (await types(id)).length).toBe(4)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await types(id)).length).toBe(0)
})

it('says which line lacks how many, and opens the editor with what the line asks', async () => {
  const id = await quizNamed('short', [])
  const { page } = maren
  await page.goto(`/quizzes/${id}/fill`)
  await page.getByLabel('Questions of difficulty 5').fill('90')
  await page.getByRole('button', { name: 'Find them' }).click()
  await page.getByText(/^Difficulty 5: \d+ of 90$/).waitFor()
  await page.getByRole('link', { name: 'Write one' }).click()
  await page.waitForURL('**/bank/new?**')
  expect(new URL(page.url()).searchParams.get('difficulty')).toBe('5')
})

it('keeps a blueprint, and takes it up in another quiz', async () => {
  const [first, second] = [await quizNamed('kept-one', []), await quizNamed('kept-two', [])]
  const { page } = maren
  await page.goto(`/quizzes/${first}/fill`)
  await page.getByLabel('any objective, any kind').fill('3')
  await page.getByRole('button', { name: 'Keep this blueprint …' }).click()
  await page.getByLabel('Name of the blueprint').fill('Three of anything')
  await page.getByRole('button', { name: 'Keep it', exact: true }).click()
  await page.getByText('The blueprint is kept.').waitFor()
  await page.goto(`/quizzes/${second}/fill`)
  await page.getByRole('button', { name: /^Take up a blueprint/ }).click()
  await page.getByRole('menuitem', { name: 'Three of anything' }).click()
  expect(await page.getByLabel('any objective, any kind').inputValue()).toBe('3')
})

it('makes a pool of chosen rows with the mouse alone, spreads it, and takes it apart', async () => {
  const id = await quizNamed('pooled', ['q-datum', 'q-cover', 'q-clearing', 'q-drying'])
  const { page } = maren
  await page.goto(`/quizzes/${id}/compose`)
  await page.getByRole('checkbox', { name: 'Choose row 1' }).click()
  await page.getByRole('checkbox', { name: 'Choose row 3' }).click({ modifiers: ['Shift'] })
  const bar = page.getByRole('region', { name: 'Chosen rows' })
  await bar.getByText('3 rows chosen').waitFor()
  await bar.getByRole('button', { name: 'Make a pool of them' }).click()
  await expect.poll(() => types(id)).toEqual(['pool', 'question'])
  await page.getByText('Draw 2 of 3').click()
  await page.getByLabel('Each paper’s draw').selectOption('difficulty')
  await expect.poll(async () => (await rowsOf(id))[0]).toMatchObject({ spread: 'difficulty', draw: 2 })
  await page.getByRole('button', { name: 'three sample draws' }).click()
  await page.getByText('three others').waitFor()
  await page.getByRole('button', { name: 'take the pool apart' }).click()
  await expect.poll(() => types(id)).toEqual(['question', 'question', 'question', 'question'])
})

it('a judge rates, sees what guessing and a class would do, and sets the pass mark', async () => {
  const id = await quizNamed('judged', ['q-datum', 'q-cover'])
  const { page } = maren
  await page.goto(`/quizzes/${id}/compose`)
  await page.getByRole('button', { name: 'Where to put the pass mark …' }).click()
  const chances = page.getByLabel(/^Chance in percent/)
  await chances.nth(0).fill('80')
  await chances.nth(1).fill('50')
  await page.getByText('· kept').waitFor()
  await page.getByText('1.3 of 2 points').waitFor()
  await page.getByRole('button', { name: 'As judged: 65 %' }).click()
  await page.getByText(/pass by guessing alone/).waitFor()
  await page.getByRole('button', { name: 'Set the pass mark to 65 %' }).click()
  await expect.poll(async () => (await loadQuiz(db, id)).quiz.rules.grade.pass).toEqual({ by: 'percent', value: 65 })
})

it('a colleague’s change appears within two seconds, with who is on which row; history brings a state back', async () => {
  const id = await quizNamed('shared', ['q-datum', 'q-cover'])
  for (const { page } of [maren, idris]) {
    await page.goto(`/quizzes/${id}/compose`)
    await page.getByRole('region', { name: 'Figures' }).waitFor()
  }
  await maren.page.getByText('also here: Idris Quayle').waitFor()
  const row = idris.page.locator('[data-row="r-q-cover"]')
  await row.focus()
  await maren.page.getByText('Idris Quayle is here').waitFor()
  await idris.page.keyboard.press('Delete')
  await maren.page.locator('[data-row="r-q-cover"]').waitFor({ state: 'detached', timeout: 2000 })
  await maren.page.getByRole('button', { name: 'History', exact: true }).click()
  const history = maren.page.getByRole('dialog', { name: 'History' })
  await history.getByText(/^Took out “/).waitFor()
  await history.getByRole('button', { name: 'look at it' }).last().click()
  await history.getByRole('button', { name: 'Bring this back' }).click()
  await expect.poll(async () => (await types(id)).length).toBe(2)
  await idris.page.locator('[data-row="r-q-cover"]').waitFor()
})

it('a check is set aside with a reason, and a colleague reads who did it', async () => {
  const id = await quizNamed('aside', ['q-datum', 'q-cover'])
  const { page } = maren
  await page.goto(`/quizzes/${id}/rules`)
  await db.run("UPDATE question SET doubts = 1 WHERE id = 'q-cover'")
  await page.goto(`/quizzes/${id}/compose`)
  const check = page.getByRole('listitem').filter({ hasText: 'A colleague doubts a question' })
  await check.getByRole('button', { name: 'set aside' }).click()
  await check.getByLabel(/^Why/).fill('It is right as it stands.')
  await check.getByRole('button', { name: 'Set aside', exact: true }).click()
  await check.waitFor({ state: 'detached' })
  await idris.page.goto(`/quizzes/${id}/compose`)
  await idris.page.getByText('1 check set aside').click()
  await idris.page.getByText('“It is right as it stands.” – Maren Holt').waitFor()
  await db.run("UPDATE question SET doubts = 0 WHERE id = 'q-cover'")
})

it('a quiz is copied to other days', async () => {
  const { page } = maren
  await page.goto('/quizzes')
  await page.getByRole('button', { name: 'Copy: Tides and tidal heights' }).click()
  const dialog = page.getByRole('dialog', { name: 'Copy the quiz' })
  await dialog.getByLabel('Title of the copy').fill('Tides, next term')
  await dialog.getByLabel('Days by which dates are moved').fill('28')
  await dialog.getByRole('button', { name: 'Copy it' }).click()
  await page.getByRole('heading', { level: 1, name: 'Tides, next term' }).waitFor()
  const rows = await db.rows<{ id: string }>("SELECT id FROM quiz WHERE title = 'Tides, next term'")
  expect(rows).toHaveLength(1)
})

it('on a phone: found, read, put in, given points, nothing wider than the page', async () => {
  const id = await quizNamed('phone', ['q-datum'])
  const phone = await visitor(address, 'Maren Holt', { width: 390, height: 780 })
  const { page } = phone
  await page.goto(`/quizzes/${id}/compose`)
  const finder = page.getByRole('region', { name: 'Finder' })
  const answered = page.waitForResponse((reply) => reply.url().includes('chart'))
  await finder.getByLabel('Find questions').fill('chart')
  await answered
  await finder.getByRole('checkbox').nth(1).check()
  await finder.getByRole('button', { name: /^Add 1/ }).click()
  await expect.poll(async () => (await types(id)).length).toBe(2)
  await page.reload()
  await page.getByRole('checkbox', { name: 'Choose row 2' }).click()
  await page.getByLabel('Points for each question of the chosen rows').fill('3')
  await page.getByRole('button', { name: 'each', exact: true }).click()
  await expect.poll(async () => (await rowsOf(id))[1]).toMatchObject({ points: 3 })
  const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
  expect(wide).toBeLessThanOrEqual(1)
  await page.goto(`/quizzes/${id}/fill`)
  await page.getByRole('button', { name: 'Find them' }).waitFor()
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
  ).toBeLessThanOrEqual(1)
  expect(phone.faults).toEqual([])
})

it('nothing went wrong on any of these pages', () => {
  expect([...maren.faults, ...idris.faults]).toEqual([])
})
