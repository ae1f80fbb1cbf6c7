/** The whole job in the real interface: a teacher writes, composes, sets rules and opens; a student sits; both read the outcome. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { freshDatabase } from '../support/database'
import { startServer, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let teacher: Visitor
let student: Visitor
const minutes = 60_000

beforeAll(async () => {
  const fresh = await freshDatabase('e2e_job', iso(Date.now()))
  db = fresh.db
  server = await startServer(fresh.url)
})
afterAll(async () => {
  await closeBrowser()
  await server.stop()
  await db.close()
})

it('a teacher signs in with e-mail and password, and is told when they are wrong', async () => {
  teacher = await visitor(server.address, null)
  const { page } = teacher
  await page.getByLabel('E-mail').fill('maren.holt@gannet.example')
  await page.getByLabel('Password').fill('foul winds')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('alert').getByText('do not belong together').waitFor()
  await page.getByLabel('Password').fill('fair winds')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL('**/today')
})

it('writes a question with maths, sees it as a student would, tries an answer, and keeps it', async () => {
  const { page } = teacher
  await page.getByRole('link', { name: 'Bank' }).click()
  await page.getByRole('button', { name: 'Write a question' }).click()
  await page.getByRole('menuitem', { name: /^Choice / }).click()
  await page
    .getByRole('textbox', { name: 'Question', exact: true })
    .fill('Which fraction of the range has gone after two hours: ')
  await page
    .getByRole('toolbar', { name: 'Tools for Question', exact: true })
    .getByRole('button', { name: 'Maths' })
    .click()
  await page.getByLabel('In TeX').fill('\\frac{3}{12}')
  await page.getByRole('button', { name: 'Put it in' }).click()
  for (const [letter, words] of [
    ['A', 'A quarter'],
    ['B', 'A third'],
    ['C', 'A half'],
    ['D', 'A twelfth'],
  ])
    await page.getByRole('textbox', { name: `Option ${letter}`, exact: true }).fill(words!)
  await page.getByRole('button', { name: /: Comment for who chooses B/ }).click()
  await page.getByRole('textbox', { name: 'Comment for who chooses B' }).fill('That is four twelfths.')
  const preview = page.getByRole('region', { name: 'As a student sees it' })
  await preview.locator('.katex').first().waitFor()
  await preview.getByText('A third').click()
  await preview.getByText('✗ not right').waitFor()
  await preview.getByText('That is four twelfths.').waitFor()
  await preview.getByText('A quarter').first().click()
  await preview.getByText('✓ right').waitFor()
  await page.getByRole('button', { name: 'Keep in the bank' }).click()
  await page.waitForURL(/\/bank\/[a-z0-9]{14}$/)
  await page.getByText('version 1').first().waitFor()
})

it('composes: sections, questions from the finder, a pool, moves by drag and by keyboard, undo and redo', async () => {
  const { page } = teacher
  await page.getByRole('link', { name: 'Quizzes' }).click()
  await page.getByLabel('Title of a new quiz').fill('Evening test')
  await page.getByRole('button', { name: 'Start a quiz' }).click()
  await page.waitForURL('**/compose')
  const find = async (words: string, ...stems: string[]) => {
    await page.getByLabel('Find questions').fill(words)
    for (const stem of stems) await page.getByRole('region', { name: 'Finder' }).getByText(stem).click()
  }
  await find('fraction of the range', 'Which fraction of the range')
  await find('drying height', 'A drying height of 1.6 m')
  await page.getByRole('button', { name: 'Add 2 to “Section 1”' }).click()
  await page.getByText('Row 2: A drying').or(page.locator('[aria-label^="Row 2: A drying"]')).first().waitFor()
  await page.getByRole('button', { name: 'Add a section' }).click()
  await find('sound blast', 'one short blast means', 'gives three short blasts')
  await page.getByRole('button', { name: 'Make a pool of 2' }).click()
  await page.getByLabel('Questions drawn').fill('1')
  await page.getByRole('button', { name: 'Make the pool' }).click()
  await page.getByText('Draw 1 of 2').first().waitFor()
  const order = () =>
    page.locator('[data-row]').evaluateAll((rows) =>
      rows.map((row) =>
        row
          .getAttribute('aria-label')!
          .replace(/^Row [\d–]+: /, '')
          .slice(0, 10),
      ),
    )
  expect(await order()).toEqual(['Which frac', 'A drying h', 'Draw 1 of '])
  // By keyboard: the pool up into the first section.
  await page.locator('[data-row]').nth(2).focus()
  await page.keyboard.press('Alt+ArrowUp')
  await expect.poll(order).toEqual(['Which frac', 'A drying h', 'Draw 1 of '])
  await page.keyboard.press('Alt+ArrowUp')
  await expect.poll(order).toEqual(['Which frac', 'Draw 1 of ', 'A drying h'])
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect.poll(() => page.getByRole('region', { name: 'Section Section 2' }).locator('[data-row]').count()).toBe(1)
  await page.keyboard.press('Control+Shift+z')
  await page.keyboard.press('Control+z')
  // By drag: the second row above the first.
  const handle = page.locator('[data-row]').nth(1).locator('.drag-handle')
  const target = (await page.locator('[data-row]').nth(0).boundingBox())!
  const from = (await handle.boundingBox())!
  await page.mouse.move(from.x + 5, from.y + 5)
  await page.mouse.down()
  await page.mouse.move(from.x + 8, from.y - 10, { steps: 4 })
  await page.mouse.move(target.x + 20, target.y + 4, { steps: 12 })
  await page.mouse.up()
  await expect.poll(order).toEqual(['A drying h', 'Which frac', 'Draw 1 of '])
  // Sections by keyboard and by drag, and back.
  const titles = () => page.locator('[data-section-id] h2').allInnerTexts()
  const grip = (n: number) => page.locator('.section-handle').nth(n)
  await grip(1).focus()
  await page.keyboard.press('Alt+ArrowUp')
  await expect.poll(titles).toEqual(['Section 2', 'Section 1'])
  const above = (await grip(0).boundingBox())!
  const below = (await grip(1).boundingBox())!
  await page.mouse.move(below.x + 5, below.y + 5)
  await page.mouse.down()
  await page.mouse.move(below.x + 8, below.y - 10, { steps: 4 })
  await page.mouse.move(above.x + 20, above.y - 2, { steps: 12 })
  await page.mouse.up()
  await expect.poll(titles).toEqual(['Section 1', 'Section 2'])
  // What is written in a section is one edit, not one a letter.
  await page.getByRole('button', { name: 'edit section' }).first().click()
  await page.getByRole('textbox', { name: 'Introduction to the section' }).pressSequentially('Two on fractions.')
  await page.getByLabel('Title', { exact: true }).first().focus()
  await page.getByRole('button', { name: 'edit section' }).first().click()
  await page.getByText(/saved \d+ s ago/).waitFor()
  const edits = await db.rows<{ body: string }>("SELECT body FROM quiz_edit WHERE body LIKE '%fractions%'")
  expect(edits).toHaveLength(1)
  // Reloaded, it stands as it was left.
  await page.reload()
  await expect.poll(order).toEqual(['A drying h', 'Which frac', 'Draw 1 of '])
  await page.getByRole('region', { name: 'Figures' }).getByText('Two papers share').waitFor()
  expect(teacher.faults).toEqual([])
})

it('is told what stops, sets the rules as sentences, and opens', async () => {
  const { page } = teacher
  await page.getByRole('button', { name: 'Open to classes…' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByText('Nobody can sit it yet').waitFor()
  expect(await dialog.getByRole('button', { name: 'Open to classes', exact: true }).isDisabled()).toBe(true)
  await dialog.getByRole('button', { name: 'Not yet' }).click()
  await page.getByRole('link', { name: 'Rules', exact: true }).click()
  await page.getByRole('button', { name: 'Add a window' }).click()
  const classes = page.getByRole('button', { name: /^Who:/ })
  await classes.click()
  for (const [name, on] of [
    ['Tuesday evening', true],
    ['Saturday morning', false],
  ] as const)
    await page.getByLabel(name, { exact: true }).setChecked(on)
  await page.keyboard.press('Escape')
  const local = (offset: number) =>
    new Intl.DateTimeFormat('sv-SE', { timeZone: 'Europe/London', dateStyle: 'short', timeStyle: 'short' })
      .format(new Date(Date.now() + offset))
      .replace(' ', 'T')
  await page.getByRole('button', { name: /^Opens:/ }).click()
  await page.getByLabel('Opens', { exact: true }).fill(local(-5 * minutes))
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: /^Closes:/ }).click()
  await page.getByLabel('Closes', { exact: true }).fill(local(120 * minutes))
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: /^Time limit:/ }).click()
  await page.getByLabel('Time limit', { exact: true }).fill('30')
  await page.getByRole('button', { name: 'Set', exact: true }).click()
  await page.getByRole('button', { name: 'Time limit: 30 minutes' }).waitFor()
  await page.getByRole('button', { name: /^Attempts:/ }).click()
  await page.getByLabel('Attempts', { exact: true }).fill('2')
  await page.getByRole('button', { name: 'Set', exact: true }).click()
  await page.getByRole('region', { name: 'Day line' }).getByText('Tuesday evening').first().waitFor()
  await expect.poll(() => page.getByText(/saved \d+ s ago/).count()).toBe(1)
  await page.getByRole('button', { name: 'Open to classes…' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Open to classes', exact: true }).click()
  await page.locator('.state').getByText('Open', { exact: true }).waitFor()
  expect(teacher.faults).toEqual([])
})

it('a student sits it: answers are kept, a reload comes back to the same paper, what is left open is listed', async () => {
  student = await visitor(server.address, 'Nell Ashdown')
  const { page } = student
  await page.locator('li').filter({ hasText: 'Evening test' }).getByRole('link', { name: 'Look, then start' }).click()
  await page.getByText('You have 30 minutes.').waitFor()
  await page.getByRole('button', { name: 'Start now' }).click()
  await page.waitForURL('**/sit/*')
  await page.getByLabel('Depth').fill('2.3')
  await page.getByText(/All answers kept · \d\d:\d\d:\d\d/).waitFor()
  await page.getByRole('button', { name: 'Come back to this' }).first().click()
  await page.locator('article').nth(1).getByText('A quarter').click()
  await page.getByText(/All answers kept/).waitFor()
  const stems = await page.locator('article .written').allInnerTexts()
  await page.reload()
  await page.getByLabel('Depth').waitFor()
  expect(await page.locator('article .written').allInnerTexts()).toEqual(stems)
  expect(await page.getByLabel('Depth').inputValue()).toBe('2.3')
  await page.getByRole('button', { name: 'Marked to come back to' }).waitFor()
  // The next page, by keyboard: J moves on, a letter chooses.
  await page.getByRole('button', { name: 'Next page' }).click()
  await page.getByText('Page 2 of 2').waitFor()
  await page.reload()
  await page.getByText('Page 2 of 2').waitFor()
  await page.getByRole('button', { name: 'Hand in…' }).first().click()
  await page.getByRole('dialog').getByText('1 question not answered').waitFor()
  await page.getByRole('dialog').getByText('1 question to come back to').waitFor()
  await page.getByRole('dialog').getByRole('button', { name: 'Go on writing' }).click()
})

it('works on through a lost connection, and sends what was written when it is back', async () => {
  const { page, context } = student
  await page.getByRole('button', { name: 'Previous page' }).click()
  await context.setOffline(true)
  await page.getByLabel('Depth').fill('2.34')
  await page.getByText('Connection lost · your answers are kept on this device').waitFor()
  await context.setOffline(false)
  await page.getByText(/All answers kept/).waitFor()
  const kept = await db.one<{ response: string }>(
    "SELECT w.response FROM answer w JOIN attempt a ON a.id = w.attempt_id WHERE a.student_id = 'p-nell-ashdown' AND w.response LIKE '%2.34%'",
  )
  expect(kept?.response).toBe('{"text":"2.34"}')
})

it('another device takes over, and the first says so and can take it back', async () => {
  const second = await visitor(server.address, 'Nell Ashdown', { width: 390, height: 780 })
  await second.page.locator('li').filter({ hasText: 'Evening test' }).getByRole('link', { name: 'Go on' }).click()
  await second.page.getByLabel('Depth').fill('2.2')
  await second.page.getByText(/All answers kept/).waitFor()
  await student.page.getByLabel('Depth').fill('7')
  await student.page.getByText('This paper is now being written on another device.').waitFor()
  expect(await student.page.getByLabel('Depth').getAttribute('readonly')).not.toBeNull()
  await student.page.getByRole('button', { name: 'Take it back to this device' }).click()
  await expect.poll(() => student.page.getByLabel('Depth').inputValue()).toBe('2.2')
  await student.page.getByLabel('Depth').fill('2.3')
  await student.page.getByText(/All answers kept/).waitFor()
  await second.context.close()
})

it('is given a break for this quiz alone, and takes a part of it: the clock stands and the questions are covered', async () => {
  const { page } = teacher
  await page.getByRole('link', { name: 'Rules', exact: true }).click()
  await page.getByRole('button', { name: 'Give somebody something for this quiz only' }).click()
  await page
    .getByRole('button', { name: /^Who: / })
    .last()
    .click()
  await page.getByLabel('Find students').fill('nell')
  await page.getByLabel('Nell Ashdown').check()
  const before = page.getByRole('button', { name: /^Who: .* and Nell Ashdown/ })
  const name = (await before.getAttribute('aria-label'))!.replace(/^Who: (.*) and Nell Ashdown$/, '$1')
  await page.getByLabel(name, { exact: true }).click()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Who: Nell Ashdown' }).waitFor()
  await page.getByRole('button', { name: 'breaks', exact: true }).click()
  // What it does to whom is said before it is done.
  await page.getByRole('dialog').getByText('Nell Ashdown').waitFor()
  await page.getByRole('button', { name: 'Change it' }).click()
  await page.getByText('15 minutes of breaks, for this quiz').waitFor()
  const given = async () =>
    (await db.one<{ body: string }>('SELECT body FROM quiz WHERE body LIKE \'%"title":"Evening test"%\''))!.body
  await expect.poll(given).toContain('"breakMinutes":15')

  const { page: paper } = student
  await paper.reload()
  await paper.getByRole('button', { name: /Take a break \(15:00 left\)/ }).click()
  await paper.getByRole('heading', { name: 'You are taking a break' }).waitFor()
  expect(await paper.getByLabel('Depth').count()).toBe(0)
  server.setClock(4 * minutes)
  await paper.getByRole('button', { name: 'Go on' }).click()
  await expect.poll(() => paper.getByLabel('Depth').inputValue()).toBe('2.3')
  await paper.getByRole('button', { name: /Take a break \((10:5\d|11:00) left\)/ }).waitFor()
  const { minutes: longer } = (await db.one<{ minutes: number }>(
    "SELECT TIMESTAMPDIFF(MINUTE, started_at, deadline) AS minutes FROM attempt WHERE student_id = 'p-nell-ashdown' AND state = 'open'",
  ))!
  expect([33, 34]).toContain(Number(longer))
  server.setClock(0)
})

it('hands in; the review shows what the rules release, and from when the rest', async () => {
  const { page } = student
  await page.getByRole('button', { name: 'Hand in…' }).first().click()
  await page.getByRole('dialog').getByRole('button', { name: 'Hand in', exact: true }).click()
  await page.waitForURL('**/review/*')
  await page.getByText('Score of this attempt').waitFor()
  await page.getByText('of 3 · 66.7 %').waitFor()
  await page.getByText(/the correct answers: from/).waitFor()
  expect(await page.getByText('right answer').count()).toBe(0)
  // After everybody's end the rest is shown.
  server.setClock(6 * 60 * minutes)
  await page.reload()
  await page.getByText('2.3 ± 0.05 m').waitFor()
  await page.getByText('✓ right answer').first().waitFor()
  server.setClock(0)
  expect(student.faults).toEqual([])
})

it('a second attempt is drawn anew; when time is up the page hands in by itself', async () => {
  const { page } = student
  await page.getByRole('link', { name: 'My quizzes' }).first().click()
  await page.locator('li').filter({ hasText: 'Evening test' }).getByRole('link', { name: 'Sit it again' }).click()
  await page.getByRole('button', { name: 'Start now' }).click()
  await page.getByLabel('Depth').fill('2.3')
  await page.getByText(/All answers kept/).waitFor()
  server.setClock(30 * minutes + 1000)
  await page.getByLabel('Depth').fill('2.30')
  await page.waitForURL('**/review/*')
  const attempt = await db.one<{ ended_by: string; seconds_over: number }>(
    "SELECT ended_by, TIMESTAMPDIFF(SECOND, deadline, handed_in_at) AS seconds_over FROM attempt WHERE student_id = 'p-nell-ashdown' AND number = 2",
  )
  expect(attempt).toEqual({ ended_by: 'student', seconds_over: 0 })
  server.setClock(0)
})

it('a paper whose page was closed is handed in by the server', async () => {
  const closed = await visitor(server.address, 'Wyn Parrish')
  await closed.page
    .locator('li')
    .filter({ hasText: 'Evening test' })
    .getByRole('link', { name: 'Look, then start' })
    .click()
  await closed.page.getByRole('button', { name: 'Start now' }).click()
  await closed.page.getByLabel('Depth').fill('2.3')
  await closed.page.getByText(/All answers kept/).waitFor()
  await closed.context.close()
  server.setClock(45 * minutes)
  const { page } = teacher
  await page.getByRole('link', { name: 'Marks', exact: true }).click()
  const row = page.getByRole('row').filter({ hasText: 'Wyn Parrish' })
  await row.getByText('by the clock').waitFor()
  server.setClock(0)
})

it('the teacher sees every student, and one paper with every answer beside its key', async () => {
  const { page } = teacher
  await page.reload()
  const rows = page.getByRole('row').filter({ hasText: 'Nell Ashdown' })
  await rows.getByText('66.7 %').waitFor()
  await rows.getByText('✓ passed').waitFor()
  await rows.getByRole('link', { name: 'Attempt 1' }).click()
  await page.getByRole('heading', { name: 'Nell Ashdown, attempt 1' }).waitFor()
  await page.getByText('2.3 ± 0.05 m').waitFor()
  await page.getByText('Set aside, and not marked').waitFor()
  expect(teacher.faults).toEqual([])
})
