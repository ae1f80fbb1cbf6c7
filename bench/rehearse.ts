/**
 * Rehearsing: milliseconds from a press that moves the clock to the student's page as it is at that instant, of a quiz of 50
 * questions that has been sat in the rehearsal (19th of 20); seconds for 1,000 simulated sittings of it, a hundred at a time.
 */
import { iso, minute, plus } from '../core/kit/time'
import { editTo, newRow, newSection, usualRules } from '../core/quiz'
import { blankWindow } from '../core/rules/windows'
import { emptySum, plusSum } from '../core/trial'
import { seedDemo } from '../demo/seed'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { makeEdit } from '../server/domain/quizzes/edits'
import { createQuiz, loadQuiz } from '../server/domain/quizzes/quizzes'
import { findPerson } from '../server/people/people'
import { trialRun } from '../server/rehearsal/trial'
import { closeBrowser, visitor } from '../tests/support/browser'
import { startServer } from '../tests/support/server'

const url = process.env.THISTLE_DATABASE_URL!
const db = openDatabase(url, 4, patient)
await migrate(db)
const now = iso(Date.now())
await seedDemo(db, now)
const maren = (await findPerson(db, 'p-maren'))!
const id = 'bench-rehearse'
// What is marked by itself, and no recording: all of it can be filled in.
const questions = await db.rows<{ id: string }>(
  "SELECT id FROM question WHERE school_id = ? AND state = 'usable' AND sharing = 'school' AND id LIKE 'q-%' AND kind NOT IN ('recording', 'written', 'short') ORDER BY id LIMIT 50",
  [maren.school],
)
await createQuiz(db, maren, 'Fifty', now, id)
const { quiz } = await loadQuiz(db, id)
const rows = questions.map((each) => newRow({ type: 'question', id: `r-${each.id}`, question: each.id, points: 1 }))
const opens = plus(now, 60 * minute)
const whole = {
  content: { ...quiz.content, sections: [newSection({ id: 's1', title: 'Fifty', order: 'kept', rows })] },
  rules: {
    ...usualRules,
    limit: 60,
    windows: [blankWindow({ id: 'w1', classes: ['c-tuesday'], opens, closes: plus(opens, 180 * minute) })],
  },
}
await makeEdit(db, maren, id, 0, 'bench.1', editTo(quiz, whole)!, now)

const began = performance.now()
let sum = emptySum()
for (let from = 0; from < 1000; from += 100)
  sum = plusSum(
    sum,
    await trialRun(db, maren, id, {
      content: 'written',
      from,
      count: 100,
      students: { mean: 0, deviation: 1, lose: 0.1 },
    }),
  )
const seconds = (performance.now() - began) / 1000
if (sum.sat !== 1000 || rows.length !== 50) throw new Error(`${sum.sat} sittings of ${rows.length} questions.`)

const server = await startServer(url)
const mine = await visitor(server.address, 'Maren Holt')
const { page } = mine
await page.goto(`/quizzes/${id}/rehearse`)
const frame = page.frameLocator('iframe')
await frame.getByRole('button', { name: 'Start now' }).click({ timeout: 60_000 })
await frame.getByText('Question 1 ·').first().waitFor()
await page.getByRole('button', { name: 'right', exact: true }).click()
await frame.getByText(/50 of 50 answered/).waitFor()
await frame.getByRole('button', { name: 'Hand in…' }).click()
await frame.getByRole('dialog').getByRole('button', { name: 'Hand in' }).click()
await frame.getByText('100.0 %').first().waitFor()
await mine.quiet()

// As text: what tsx makes of a function names helpers that the page does not have.
const moves = `new Promise(async (done) => {
  const frame = document.querySelector('iframe')
  const field = document.querySelector('input[type=datetime-local]')
  const head = () => frame.contentDocument.querySelector('h1')
  const times = []
  for (let i = 0; i < 20; i++) {
    const at = new Date(Date.parse(field.value + 'Z') + 60000 * (i + 1))
    head().dataset.before = 'yes'
    const began = performance.now()
    field.value = at.toISOString().slice(0, 16)
    field.dispatchEvent(new Event('change', { bubbles: true }))
    while (!head() || head().dataset.before) await new Promise((next) => requestAnimationFrame(() => setTimeout(next, 0)))
    times.push(performance.now() - began)
    await new Promise((next) => setTimeout(next, 150))
  }
  done(times)
})`
const times = ((await page.evaluate(moves)) as number[]).sort((a, b) => a - b)
await closeBrowser()
await server.stop()
await db.close()
console.log(
  JSON.stringify({
    'rules.rehearse': { value: Number(times[18]!.toFixed(0)), unit: 'ms' },
    'trial.run': { value: Number(seconds.toFixed(2)), unit: 's' },
  }),
)
