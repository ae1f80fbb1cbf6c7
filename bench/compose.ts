/**
 * Composing in the browser: milliseconds from the key that moves a row in a running order of 300 rows to the next frame
 * that shows it, and from one teacher's move to a colleague's screen (19th of 20).
 */
import { iso } from '../core/kit/time'
import { addRows } from '../core/quiz'
import { seedDemo } from '../demo/seed'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { addQuestion } from '../server/domain/bank/questions/questions'
import { makeEdit } from '../server/domain/quizzes/edits'
import { createQuiz, loadQuiz } from '../server/domain/quizzes/quizzes'
import { findPerson } from '../server/people/people'
import { sampleQuestion } from '../tests/fixtures/core'
import { closeBrowser, visitor } from '../tests/support/browser'
import { startServer } from '../tests/support/server'

const url = process.env.THISTLE_DATABASE_URL!
const db = openDatabase(url, 4, patient)
await migrate(db)
await seedDemo(db, iso(Date.now()))
const now = iso(Date.now())
const maren = (await findPerson(db, 'p-maren'))!
const id = 'bench-compose'
const rows = 300

async function questions(): Promise<string[]> {
  const made: string[] = []
  while (made.length < rows) {
    const stem = `<p>Question ${made.length} of a long paper, as long as questions usually are.</p>`

    made.push((await addQuestion(db, maren, sampleQuestion('choice', { stem }), now)).id)
  }
  return made
}
await createQuiz(db, maren, 'Three hundred rows', now, id)
await db.run("INSERT IGNORE INTO quiz_teacher (quiz_id, person_id) VALUES (?, 'p-idris')", [id])
const section = (await loadQuiz(db, id)).quiz.content.sections[0]!.id
const added = (await questions()).map((question, i) => ({
  type: 'question' as const,
  id: `r${i}`,
  question,
  points: 1,
  fixed: false,
}))
await makeEdit(db, maren, id, 0, 'bench.1', addRows(section, null, added), now)

const server = await startServer(url)
const [mine, theirs] = [await visitor(server.address, 'Maren Holt'), await visitor(server.address, 'Idris Quayle')]
for (const { page } of [mine, theirs]) {
  await page.goto(`/quizzes/${id}/compose`)
  await page.locator('[data-row="r299"]').waitFor({ timeout: 60_000 })
}
await mine.page.getByText('also here').waitFor()
await mine.quiet()

// As text: what tsx makes of a function names helpers that the page does not have.
const move = (row: string, key: string) => `new Promise((done) => {
  const row = document.querySelector('[data-row="${row}"]')
  row.focus()
  requestAnimationFrame(() => setTimeout(() => {
    const began = performance.now()
    const at = Date.now()
    row.dispatchEvent(new KeyboardEvent('keydown', { key: '${key}', altKey: true, bubbles: true }))
    requestAnimationFrame(() => setTimeout(() => done({ took: performance.now() - began, at }), 0))
  }, 50))
})`
const seen = (row: string, before: string) => `new Promise((done) => {
  const look = () => document.querySelector('[data-row="${row}"]')?.previousElementSibling?.getAttribute('data-row') === '${before}'
  if (look()) { done(Date.now()); return }
  const watch = new MutationObserver(() => { if (look()) { watch.disconnect(); done(Date.now()) } })
  watch.observe(document.body, { childList: true, subtree: true })
})`

const frames: number[] = []
const across: number[] = []
for (let i = 0; i < 20; i++) {
  const row = `r${100 + i * 5}`
  const after = `r${101 + i * 5}`
  const arrives = theirs.page.evaluate<number>(seen(row, after))
  const moved = await mine.page.evaluate<{ took: number; at: number }>(move(row, 'ArrowDown'))
  frames.push(moved.took)
  across.push((await arrives) - moved.at)
}
await closeBrowser()
await server.stop()
await db.close()
const sorted = (values: number[]) => [...values].sort((a, b) => a - b)
console.log(
  JSON.stringify({
    'compose.edit': { value: Math.round(sorted(frames)[10]!), unit: 'ms' },
    'compose.together': { value: Math.round(sorted(across)[18]!), unit: 'ms' },
  }),
)
process.exit(0)
