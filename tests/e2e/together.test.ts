/** Two teachers in one quiz, and one teacher who changes pages, loses the connection and reloads. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { duration } from '../../core/kit/phrases'
import { day, plus } from '../../core/kit/time'
import { addRows, addTo, together } from '../../core/quiz'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { person } from '../support/database'
import { sharedScene } from '../support/scene'

const { db, address, now } = sharedScene()
let maren: Visitor
let idris: Visitor
const rules = '/quizzes/quiz-together/rules'
beforeAll(async () => {
  const owner = await person(db, 'p-maren')
  await createQuiz(db, owner, 'Worked on together', now, 'quiz-together')
  await db.run("INSERT INTO quiz_teacher (quiz_id, person_id) VALUES ('quiz-together', 'p-idris')")
  const { quiz } = await loadQuiz(db, 'quiz-together')
  const window = (id: string, group: string) => ({
    id,
    classes: [group],
    opens: plus(now, day),
    closes: plus(now, 2 * day),
    due: null,
    latestStart: null,
    groups: [],
    students: [],
    closedAt: null,
    password: null,
  })
  const edit = together([
    addRows(quiz.content.sections[0]!.id, null, [
      { type: 'question', id: 'r1', question: 'q-datum', points: 1, fixed: false },
    ]),
    addTo(['rules', 'windows'], null, [window('w1', 'c-tuesday'), window('w2', 'c-saturday')]),
  ])!
  await makeEdit(db, owner, 'quiz-together', 0, 'scene.1', edit, now)
  maren = await visitor(address, 'Maren Holt')
  // What stands between lets no line through that stays open: her page asks by itself.
  await maren.context.route('**/api/quizzes/*/live?*', (route) => route.abort())
  idris = await visitor(address, 'Idris Quayle')
  for (const each of [maren, idris]) {
    await each.page.goto(rules)
    await each.page.getByRole('button', { name: 'Time limit: 45 minutes' }).waitFor()
  }
})
afterAll(async () => {
  await closeBrowser()
  await db.close()
})

async function setLimit({ page }: Visitor, minutes: number, atLast: () => Promise<void> = async () => {}) {
  await page.getByRole('button', { name: /^Time limit:/ }).click()
  await page.getByLabel('Time limit', { exact: true }).fill(String(minutes))
  await atLast()
  await page.getByRole('button', { name: 'Set', exact: true }).click()
}
const limit = async () => (await loadQuiz(db, 'quiz-together')).quiz.rules.limit
const shows = (visit: Visitor, minutes: number) =>
  visit.page.getByRole('button', { name: `Time limit: ${duration(minutes)}`, exact: true }).waitFor()
const saved = (visit: Visitor) => visit.page.getByText(/saved \d+ s ago/).waitFor()

it('two windows moved at once both stand', async () => {
  const latest = (visit: Visitor, nth: number) =>
    visit.page.getByRole('button', { name: 'add a latest start' }).nth(nth).click()
  await Promise.all([latest(maren, 0), latest(idris, 1)])
  await Promise.all([saved(maren), saved(idris)])
  await expect
    .poll(async () => (await loadQuiz(db, 'quiz-together')).quiz.rules.windows.map((each) => each.latestStart !== null))
    .toEqual([true, true])
  await maren.page.getByText('Students are told').waitFor()
  await expect.poll(() => maren.page.getByText(/after that nobody can start/).count()).toBe(1)
})

it('on the same thing the later one is asked, and may put theirs in or leave it', async () => {
  await idris.page.getByText(/also here: Maren Holt/).waitFor({ timeout: 15_000 })
  // Maren's page does not hear of it before she sets hers.
  const polls = '**/api/quizzes/quiz-together/edits?since=*'
  await maren.context.route(polls, (route) => route.abort())
  await setLimit(idris, 90)
  await expect.poll(limit).toBe(90)
  await setLimit(maren, 60, () => maren.context.unroute(polls))
  await maren.page.getByText('Idris Quayle has changed the same thing in the meantime. Theirs stands now.').waitFor()
  await shows(maren, 90)
  await maren.page.getByRole('button', { name: 'Put mine in' }).click()
  await expect.poll(limit).toBe(60)
})

it('undo does not take a colleague’s work back, and says whose it is', async () => {
  await shows(idris, 60)
  await setLimit(idris, 75)
  await expect.poll(limit).toBe(75)
  await shows(maren, 75)
  await maren.page.getByRole('button', { name: 'Undo' }).click()
  await maren.page.getByText('Not taken back: Idris Quayle has changed this since.').waitFor()
  expect(await limit()).toBe(75)
  await maren.page.getByRole('button', { name: 'Close', exact: true }).click()
})

it('moving between the pages of a quiz keeps it and its undo, and asks for nothing anew', async () => {
  const { page } = maren
  await setLimit(maren, 30)
  await shows(maren, 30)
  await saved(maren)
  const asked: string[] = []
  page.on('request', (request) => asked.push(new URL(request.url()).pathname))
  await page.getByRole('link', { name: 'Compose', exact: true }).click()
  await page.getByRole('region', { name: 'Finder' }).waitFor()
  await page.getByRole('link', { name: 'Rules', exact: true }).click()
  await shows(maren, 30)
  expect(asked.filter((path) => path === '/api/quizzes/quiz-together')).toEqual([])
  await page.getByRole('button', { name: 'Undo' }).click()
  await shows(maren, 75)
  await expect.poll(limit).toBe(75)
})

it('what could not be sent survives a reload, and is sent once when the connection is back', async () => {
  const { page, context } = maren
  await context.route('**/api/quizzes/quiz-together/edits', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  )
  await setLimit(maren, 20)
  await page.getByText('not saved yet: the server cannot be reached, trying again').waitFor()
  expect(await limit()).toBe(75)
  await page.reload()
  await shows(maren, 20)
  await context.unroute('**/api/quizzes/quiz-together/edits')
  await expect.poll(limit, { timeout: 10_000 }).toBe(20)
  const { revision } = await loadQuiz(db, 'quiz-together')
  await page.reload()
  await shows(maren, 20)
  expect((await loadQuiz(db, 'quiz-together')).revision).toBe(revision)
  expect([...maren.faults, ...idris.faults]).toEqual([])
})

it('what is being written is asked about before it is left, and is there after a reload', async () => {
  const { page } = maren
  await page.goto('/bank/new?kind=choice')
  const stem = page.getByRole('textbox', { name: 'Question', exact: true })
  await stem.fill('A draft about neaps')
  await page.getByRole('link', { name: 'Today' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Stay here' }).click()
  await page.getByRole('dialog').waitFor({ state: 'detached' })
  await page.reload()
  await page.getByText('What you had written here and not kept is back.').waitFor()
  await expect.poll(() => stem.innerText()).toBe('A draft about neaps')
  await page.getByRole('link', { name: 'Today' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Leave without keeping' }).click()
  await page.waitForURL('**/today')
  await page.goto('/bank/new?kind=choice')
  await stem.waitFor()
  expect(await stem.innerText()).not.toContain('neaps')
})
