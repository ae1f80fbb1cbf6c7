/** A school from nothing: first start, first class, a code, a student on a phone who sits a quiz, a password by a link, a roster. */
import axe from 'axe-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import { addRows, addTo, newRow, together } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { addQuestion } from '../../server/domain/bank/questions/questions'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { sampleQuestion } from '../fixtures/core'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { freshDatabase, person } from '../support/database'
import { startServer, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let ada: Visitor
const now = iso(Date.now())
const axeFinds = async ({ page }: Visitor) => {
  await page.evaluate(axe.source)
  return page.evaluate(async () => {
    const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(document)
    return violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html).join(' ')}`)
  })
}
beforeAll(async () => {
  const fresh = await freshDatabase('new_school')
  db = fresh.db
  server = await startServer(fresh.url, undefined, 1, { THISTLE_DEMO: 'off' })
  ada = await visitor(server.address, null)
})
afterAll(async () => {
  await closeBrowser()
  await server.stop()
  await db.close()
})

it('a first start asks for the school and its first teacher, and is had once', async () => {
  const { page } = ada
  await page.waitForURL('**/first-start')
  await page.getByLabel('Name of the school').fill('Kelp Lane School')
  await page.getByLabel('Its time zone').selectOption('Europe/Oslo')
  await page.getByLabel('Your name').fill('Ada Brook')
  await page.getByLabel('Your e-mail, to sign in with').fill('ada@kelp.example')
  await page.getByLabel('Password').fill('ada brook 2026')
  await page.getByText('This is made of the name or address').waitFor()
  await page.getByRole('button', { name: 'Begin' }).click()
  await page.getByRole('alert').getByText('This is made of the name or address').waitFor()
  await page.getByLabel('Password').fill('three quiet harbours')
  await page.getByRole('button', { name: 'Begin' }).click()
  await page.getByText('No class yet').waitFor()
  const other = await visitor(server.address, null)
  await other.page.goto('/first-start')
  await other.page.getByText('Kelp Lane School is laid out here already.').waitFor()
  await other.context.close()
})

it('a class is made, filled by a list, and joined by a code on a phone', async () => {
  const { page } = ada
  await page.getByRole('button', { name: 'Make a class…' }).click()
  await page.getByRole('dialog').getByLabel('Name').fill('Knots, beginners')
  await page.getByRole('button', { name: 'Make it' }).click()
  await page.getByText('Nobody is in this class yet').waitFor()
  await page.getByRole('button', { name: 'Add students…' }).click()
  await page
    .getByRole('textbox', { name: /One person a line/ })
    .fill('Ben Carr <ben@kelp.example>\nDunn, Cleo\nBen Again <ben@kelp.example>')
  await page.getByText('This one stands in the list already.').waitFor()
  await page.getByRole('button', { name: 'Add 2 students' }).click()
  await page.getByText('1 letter with a link went out.').waitFor()
  await page.getByRole('button', { name: 'Done' }).click()
  await page.getByRole('link', { name: 'Cleo Dunn' }).waitFor()
  // Nobody has sat anything: the register is a table all the same.
  const top = async (name: string) => (await page.getByRole('columnheader', { name }).boundingBox())!.y
  expect(await top('can do now')).toBe(await top('Student'))
  await page.getByRole('button', { name: 'Make a code' }).click()
  const code = (await page
    .locator('strong')
    .filter({ hasText: /^[A-Z]{5} \d{3}$/ })
    .textContent())!

  const zoe = await visitor(server.address, null, { width: 390, height: 844 })
  const phone = zoe.page
  await phone.goto('/join')
  await phone.getByLabel('The code of the class').fill('BCDFG 222')
  await phone.getByRole('button', { name: 'Continue' }).click()
  await phone.getByText('No class has this code.').waitFor()
  await phone.getByLabel('The code of the class').fill(code.toLowerCase())
  await phone.getByRole('button', { name: 'Continue' }).click()
  await phone.getByText('Knots, beginners', { exact: true }).waitFor()
  await phone.getByLabel('Your name').fill('Zoë Harbour')
  await phone.getByLabel('Your e-mail').fill('zoe@kelp.example')
  await phone.getByLabel('Password').fill('deep water at noon')
  await phone.getByRole('button', { name: 'Join Knots, beginners' }).click()
  await phone.getByText('No quiz for you yet').waitFor()

  // A quiz for the class: its making is tested where it is made.
  const owner = await person(db, (await db.one<{ id: string }>("SELECT id FROM person WHERE role = 'teacher'"))!.id)
  const question = await addQuestion(db, owner, sampleQuestion('text'), now)
  await createQuiz(db, owner, 'First knots', now, 'first')
  const { quiz } = await loadQuiz(db, 'first')
  const klass = (await db.one<{ id: string }>('SELECT id FROM class'))!.id
  const window = {
    id: 'w',
    classes: [klass],
    opens: now,
    closes: null,
    due: null,
    latestStart: null,
    groups: [],
    students: [],
    closedAt: null,
    password: null,
  }
  const rows = [newRow({ type: 'question', id: 'r1', question: question.id, points: 1 })]
  await makeEdit(
    db,
    owner,
    'first',
    0,
    'first.1',
    together([addRows(quiz.content.sections[0]!.id, null, rows), addTo(['rules', 'windows'], null, [window])])!,
    now,
  )
  await openQuiz(db, owner, 'first', now)
  await phone.reload()
  await phone.getByRole('link', { name: 'Look, then start' }).click()
  await phone.getByRole('button', { name: 'Start now' }).click()
  await phone.getByRole('textbox').fill('bowline')
  await phone.getByText(/All answers kept/).waitFor()
  await phone.getByRole('button', { name: 'Hand in…' }).first().click()
  await phone.getByRole('dialog').getByRole('button', { name: 'Hand in', exact: true }).click()
  await phone.waitForURL('**/review/*')

  await page.reload()
  await page.getByRole('row', { name: /Zoë Harbour/ }).waitFor()
  expect([zoe.faults, ada.faults]).toEqual([[], []])
  await zoe.context.close()
})

it('somebody who was written to chooses a password by the link, which works once', async () => {
  const { page } = ada
  await page.goto('/mail')
  await page.getByText('ben@kelp.example').click()
  const link = (await page.getByRole('link', { name: /come-in/ }).getAttribute('href'))!
  const ben = await visitor(server.address, null)
  await ben.page.goto(link)
  await ben.page.getByText('Ben Carr, Kelp Lane School').waitFor()
  await ben.page.getByLabel('Password').fill('deep water at noon')
  await ben.page.getByRole('button', { name: 'Keep it and come in' }).click()
  await ben.page.waitForURL('**/my')
  await ben.page.getByText('First knots').waitFor()
  await ben.page.goto(link)
  await ben.page.getByText('This link was used already').waitFor()
  // The password is changed, and what was forgotten is asked for.
  await ben.page.goto('/me')
  await ben.page.getByLabel('The password until now').fill('deep water at noon')
  await ben.page.getByLabel('A new one').fill('low water at dusk')
  await ben.page.getByRole('button', { name: 'Change it' }).click()
  await ben.page.getByText('Your password is changed.').waitFor()
  await ben.page.getByRole('button', { name: 'Sign out everywhere' }).click()
  await ben.page.waitForURL('**/sign-in')
  await ben.page.getByRole('button', { name: 'Password forgotten' }).click()
  await ben.page.getByLabel('E-mail').fill('ben@kelp.example')
  await ben.page.getByRole('button', { name: 'Write to me' }).click()
  await ben.page.getByText('a letter with a link is on its way').waitFor()
  expect(ben.faults).toEqual([])
  await ben.context.close()
})

it('several students are given more time, put into a group, moved and taken out, and back', async () => {
  const { page } = ada
  await page.goto('/classes')
  await page.getByRole('button', { name: 'Make a class…' }).click()
  await page.getByRole('dialog').getByLabel('Name').fill('Splices')
  await page.getByRole('button', { name: 'Make it' }).click()
  await page.getByText('Nobody is in this class yet').waitFor()
  await page.getByRole('link', { name: 'All classes' }).click()
  await page.getByRole('link', { name: 'Knots, beginners' }).click()
  await page.getByLabel('Choose Ben Carr').check()
  await page.getByLabel('Choose Cleo Dunn').check()
  await page.getByRole('button', { name: 'More time, language…' }).click()
  await page.getByLabel('Time factor').fill('1.5')
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click()
  await page.getByText('time and a half').nth(1).waitFor()
  await page.getByLabel('Choose Cleo Dunn').check()
  await page.getByRole('button', { name: 'Into a group…' }).click()
  await page.getByLabel('Name of the group').fill('Early boat')
  await page.getByRole('button', { name: 'Make it' }).click()
  await page.getByRole('heading', { name: 'Groups' }).waitFor()
  await page
    .getByRole('row', { name: /Cleo Dunn/ })
    .getByText('Early boat')
    .waitFor()
  await page.getByLabel('Choose Ben Carr').check()
  await page.getByRole('button', { name: 'Move to' }).click()
  await page.getByRole('menuitem', { name: 'Splices' }).click()
  await page.getByText('Ben Carr moved to Splices.').waitFor()
  await expect.poll(() => page.getByRole('row', { name: /Ben Carr/ }).count()).toBe(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('row', { name: /Ben Carr/ }).waitFor()
  await page.getByLabel('Choose Cleo Dunn').check()
  await page.getByRole('button', { name: 'Take out of the class' }).click()
  await page.getByText('1 student left this class').click()
  await page.getByRole('button', { name: 'Bring back' }).click()
  await page.getByRole('row', { name: /Cleo Dunn/ }).waitFor()
  expect(ada.faults).toEqual([])
})

it('a student of the roster claims their place by code and number, and the teacher undoes it', async () => {
  const { page } = ada
  const klass = (await db.one<{ id: string; code: string }>(
    "SELECT id, join_code AS code FROM class WHERE name = 'Knots, beginners'",
  ))!
  const cleo = (await db.one<{ id: string }>("SELECT id FROM person WHERE name = 'Cleo Dunn'"))!.id
  await db.run("UPDATE person SET outside_id = '10442' WHERE id = ?", [cleo])
  const visit = await visitor(server.address, null, { width: 390, height: 844 })
  const phone = visit.page
  await phone.goto(`/join?code=${klass.code}`)
  await phone.getByRole('button', { name: 'Continue' }).click()
  await phone.getByLabel('Your name').fill('Cleo D.')
  await phone.getByLabel('Your e-mail').fill('cleo@home.example')
  await phone.getByLabel('Your student number').fill('10442')
  await phone.getByLabel('Password').fill('deep water at noon')
  await phone.getByRole('button', { name: 'Join Knots, beginners' }).click()
  await phone.waitForURL('**/my')
  expect(await axeFinds(visit)).toEqual([])

  await page.goto(`/classes/${klass.id}`)
  await page.getByText('1 student signed up with the join code').click()
  await page.getByText('as “Cleo D.”, by their number, cleo@home.example').waitFor()
  expect(await axeFinds(ada)).toEqual([])
  await page.getByRole('button', { name: 'Undo sign-up of Cleo Dunn' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Undo sign-up' }).click()
  await page.getByText('Cleo Dunn can sign up again.').waitFor()
  await phone.reload()
  await phone.waitForURL('**/sign-in**')
  await visit.context.close()
  // As the roster below finds her: without an address.
  await db.run('UPDATE person SET outside_id = NULL WHERE id = ?', [cleo])
})

it('a roster is looked at, a doubt decided, taken in, and taken back', async () => {
  const { page } = ada
  await page.goto('/roster')
  const rows = [
    'Who,Mail,Class',
    'Ben Carr,ben@kelp.example,"Knots, beginners"',
    'Cleo Dunn,cleo@kelp.example,"Knots, beginners"',
    'Una Vale,una@kelp.example,Ropes',
  ]
  await page
    .getByLabel('Choose files')
    .setInputFiles({ name: 'autumn.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) })
  // The heading says nothing of names: who looks says so.
  await page.getByRole('combobox', { name: 'Who' }).selectOption('name')
  await page.getByText('1 in doubt').waitFor()
  await page.getByLabel('Who is Cleo Dunn?').selectOption({ label: 'Cleo Dunn, without an address' })
  await page.getByText('0 in doubt').waitFor()
  await page.getByRole('button', { name: 'Take it in' }).click()
  await page.getByText('2 people and 1 enrolments came in.').waitFor()
  const emails = async () =>
    (await db.rows<{ email: string }>("SELECT email FROM person WHERE email LIKE '%kelp%' ORDER BY 1")).map(
      ({ email }) => email,
    )
  expect(await emails()).toEqual([
    'ada@kelp.example',
    'ben@kelp.example',
    'cleo@kelp.example',
    'una@kelp.example',
    'zoe@kelp.example',
  ])
  await page.getByRole('button', { name: 'Take back' }).click()
  await page.getByText('Taken back: the school is as it was.').waitFor()
  expect(await emails()).toEqual(['ada@kelp.example', 'ben@kelp.example', 'zoe@kelp.example'])
  expect(ada.faults).toEqual([])
})
