/** A whole sitting without a mouse: found, started, answered, gone back to, handed in and reviewed by keys alone. */
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { freshDatabase } from '../support/database'
import { startServer, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let student: Visitor
beforeAll(async () => {
  const fresh = await freshDatabase('e2e_keyboard', iso(Date.now()))
  db = fresh.db
  server = await startServer(fresh.url)
  student = await visitor(server.address, 'Carys Bowe')
})
afterAll(async () => {
  await closeBrowser()
  await server.stop()
  await db.close()
})

/** Goes on with Tab until what has the focus reads so, and is seen to have it. */
async function tabTo(page: Page, words: RegExp): Promise<void> {
  for (let i = 0; i < 60; i++) {
    await page.keyboard.press('Tab')
    const here = await page.evaluate(() => {
      const element = document.activeElement as HTMLElement
      const style = getComputedStyle(element)
      const name = element.getAttribute('aria-label') ?? element.innerText ?? ''
      return { name, seen: style.outlineStyle !== 'none' || style.boxShadow !== 'none' }
    })
    if (!words.test(here.name)) continue
    expect(here.seen, `the focus on “${here.name}” can be seen`).toBe(true)
    return
  }
  throw new Error(`Nothing that reads ${words} has come into focus.`)
}
const chosen = (page: Page) => page.locator('input:checked').count()

it('by keys alone', async () => {
  const { page } = student
  const name = await page.locator('li').filter({ hasText: 'Buoyage at your own pace' }).innerText()
  expect(name).toContain('Look, then start')
  await tabTo(page, /^Look, then start/)
  await page.keyboard.press('Enter')
  await page.waitForURL('**/my/quiz-buoys')
  await page.getByRole('button', { name: /^Start/ }).waitFor()
  await tabTo(page, /^Start/)
  await page.keyboard.press('Enter')
  await page.waitForURL('**/sit/**')
  await page.locator('article').first().waitFor()
  // Letters choose, digits too; J and K move.
  await page.keyboard.press('b')
  await expect.poll(() => chosen(page)).toBe(1)
  await page.keyboard.press('j')
  await page.keyboard.press('1')
  await expect.poll(() => chosen(page)).toBe(2)
  await page.keyboard.press('j')
  await page.keyboard.press('k')
  await page.keyboard.press('2')
  await expect.poll(() => chosen(page)).toBe(2)
  expect(await page.locator('article').nth(1).locator('input').nth(1).isChecked()).toBe(true)
  await tabTo(page, /Come back to this/)
  await page.keyboard.press('Enter')
  await page.getByText(/All answers kept · \d\d:\d\d:\d\d/).waitFor()
  // The dialog takes the focus, keeps it, and Escape gives it back.
  await tabTo(page, /^Hand in…|^Next page/)
  const pages = await page.getByText(/^Page 1 of/).count()
  if (pages) await page.getByRole('button', { name: 'Hand in…' }).first().focus()
  await page.keyboard.press('Enter')
  const dialog = page.getByRole('dialog')
  await dialog.getByText('1 question to come back to').waitFor()
  for (let i = 0; i < 12; i++) {
    await page.keyboard.press('Tab')
    expect(await page.evaluate(() => Boolean(document.activeElement?.closest('[role=dialog]')))).toBe(true)
  }
  await page.keyboard.press('Escape')
  await dialog.waitFor({ state: 'detached' })
  await page.getByRole('button', { name: 'Hand in…' }).first().focus()
  await page.keyboard.press('Enter')
  await dialog.getByRole('button', { name: 'Hand in', exact: true }).waitFor()
  await tabTo(page, /^Hand in$/)
  await page.keyboard.press('Enter')
  await page.waitForURL('**/review/**')
  await page.getByRole('heading', { name: 'Buoyage at your own pace' }).waitFor()
  const row = await db.one<{ state: string; kept: number }>(
    "SELECT a.state, (SELECT COUNT(*) FROM answer w WHERE w.attempt_id = a.id AND w.response IS NOT NULL) AS kept FROM attempt a WHERE a.quiz_id = 'quiz-buoys' AND a.student_id = 'p-carys-bowe'",
  )
  expect(row).toEqual({ state: 'handed', kept: 2 })
  expect(student.faults).toEqual([])
})
