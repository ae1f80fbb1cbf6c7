/** A session that ends under a page: nothing that was typed is lost, and nothing is done in another person's name. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { startSitting } from '../../server/domain/sittings/start'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { person } from '../support/database'
import { sharedScene } from '../support/scene'
import { Caller } from '../support/server'

const { db, address, now } = sharedScene()
let maren: Visitor
beforeAll(async () => {
  await createQuiz(db, await person(db, 'p-maren'), 'Left open over lunch', now, 'quiz-lunch')
  maren = await visitor(address, 'Maren Holt')
})
afterAll(async () => {
  await closeBrowser()
  await db.close()
})
/** Everywhere, as somebody does from another device. */
const endSessions = async (id: string) => (await new Caller(address).as(id)).call('DELETE', '/api/session/everywhere')
const rules = '/quizzes/quiz-lunch/rules'
const limit = async () => (await loadQuiz(db, 'quiz-lunch')).quiz.rules.limit
const limitButton = ({ page }: Visitor) => page.getByRole('button', { name: /^Time limit:/ })
const sheet = ({ page }: Visitor) => page.getByRole('dialog', { name: 'Sign in again' })

/** @param meanwhile what happens between typing and pressing */
async function setLimit(visit: Visitor, minutes: number, meanwhile: () => Promise<unknown>) {
  await limitButton(visit).click()
  await visit.page.getByLabel('Time limit', { exact: true }).fill(String(minutes))
  await meanwhile()
  // Pressed in the same moment: the sheet may be there already, for a request that the page makes by itself.
  await visit.page.locator('button', { hasText: /^\s*Set\s*$/ }).dispatchEvent('click')
}

it('edits of a quiz wait under the sheet, and are saved when its teacher has signed in again', async () => {
  const { page } = maren
  await page.goto(rules)
  await limitButton(maren).waitFor()
  await setLimit(maren, 31, () => endSessions('p-maren'))
  await sheet(maren).waitFor()
  expect(await limit()).toBe(45)
  // Escape does not lose the sheet, nor a wrong password what was typed.
  await page.keyboard.press('Escape')
  await page.getByLabel(/^Password of Maren Holt/).fill('not it')
  await page.getByRole('button', { name: 'Sign in and continue' }).click()
  await sheet(maren).getByRole('alert').waitFor()
  await page.getByLabel(/^Password of Maren Holt/).fill('fair winds')
  await page.getByRole('button', { name: 'Sign in and continue' }).click()
  await sheet(maren).waitFor({ state: 'detached' })
  await expect.poll(limit).toBe(31)
  expect(new URL(page.url()).pathname).toBe(rules)
  expect(maren.faults).toEqual([])
})

it('a page that only reads shows its content after signing in again, where it was', async () => {
  const { page } = maren
  await page.goto('/today')
  const classes = page.getByRole('link', { name: 'Classes', exact: true })
  await classes.waitFor()
  await maren.quiet()
  await endSessions('p-maren')
  await classes.click()
  await sheet(maren).waitFor()
  await page.getByLabel(/^Password of Maren Holt/).fill('fair winds')
  await page.getByRole('button', { name: 'Sign in and continue' }).click()
  await page
    .getByRole('link', { name: /Tuesday/ })
    .first()
    .waitFor()
})

it('signed in again in another tab, the first goes on by itself', async () => {
  const { page, context } = maren
  await page.goto(rules)
  await limitButton(maren).waitFor()
  await setLimit(maren, 32, () => endSessions('p-maren'))
  await sheet(maren).waitFor()
  const tab = await context.newPage()
  await tab.goto('/sign-in')
  await tab.getByRole('button', { name: 'Maren Holt', exact: true }).click()
  await tab.waitForURL('**/today')
  await tab.close()
  await page.evaluate(() => window.dispatchEvent(new Event('focus')))
  await expect.poll(limit).toBe(32)
  expect(await sheet(maren).count()).toBe(0)
})

it('somebody else signs in in another tab: the page says so, stops, and writes nothing in their name', async () => {
  const { page, context } = maren
  await page.goto(rules)
  await limitButton(maren).waitFor()
  await db.run("INSERT INTO quiz_teacher (quiz_id, person_id) VALUES ('quiz-lunch', 'p-idris')")
  const tab = await context.newPage()
  await setLimit(maren, 33, async () => {
    await tab.goto('/today')
    await tab.getByRole('button', { name: 'Sign out' }).click()
    await tab.getByRole('button', { name: 'Idris Quayle', exact: true }).click()
    await tab.waitForURL('**/today')
    await page.bringToFront()
  })
  const stopped = page.getByRole('dialog', { name: 'Somebody else has signed in' })
  await stopped.waitFor()
  expect(await stopped.textContent()).toContain('Idris Quayle has signed in with this browser')
  expect(await limit()).toBe(32)
  await page.getByRole('button', { name: 'Continue as Idris Quayle' }).click()
  await page.waitForURL('**/today')
  await page.getByRole('link', { name: 'Idris Quayle' }).waitFor()
  expect(await limit()).toBe(32)
  await tab.close()
})

it('a paper is written on while its student is signed out, and goes on after the sheet', async () => {
  const silas = await visitor(address, 'Silas Penn')
  const { page } = silas
  const { attempt } = await startSitting(db, await person(db, 'p-silas-penn'), 'quiz-buoys', { device: 'd1' }, now)
  await page.goto(`/sit/${attempt}`)
  await page.getByRole('radio').first().waitFor()
  await endSessions('p-silas-penn')
  await page
    .locator('label')
    .filter({ has: page.getByRole('radio') })
    .first()
    .click()
  await page.getByText('You have been signed out.').waitFor()
  await page.getByRole('button', { name: 'Sign in again…' }).click()
  await page.getByLabel(/^Password of Silas Penn/).fill('fair winds')
  await page.getByRole('button', { name: 'Sign in and continue' }).click()
  await expect
    .poll(
      async () =>
        (await db.rows('SELECT 1 FROM answer WHERE attempt_id = ? AND response IS NOT NULL', [attempt])).length,
    )
    .toBe(1)
  expect(await page.getByText('You have been signed out.').count()).toBe(0)
})
