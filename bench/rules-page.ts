/**
 * Rules in the browser: milliseconds from a pointer that moves the end of a window to the frame that shows the day line
 * with its leaks worked out anew, for 500 students with 40 accommodations (19th of 20).
 */
import { iso } from '../core/kit/time'
import { addRows, addTo, newRow, noAccommodation, together } from '../core/quiz'
import { blankWindow } from '../core/rules/windows'
import { plus, minute } from '../core/kit/time'
import { seedDemo } from '../demo/seed'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { makeEdit } from '../server/domain/quizzes/edits'
import { createQuiz, loadQuiz } from '../server/domain/quizzes/quizzes'
import { findPerson } from '../server/people/people'
import { closeBrowser, visitor } from '../tests/support/browser'
import { startServer } from '../tests/support/server'

const url = process.env.THISTLE_DATABASE_URL!
const db = openDatabase(url, 4, patient)
await migrate(db)
const now = iso(Date.now())
await seedDemo(db, now)
const maren = (await findPerson(db, 'p-maren'))!
const id = 'bench-rules'
const classes = Array.from({ length: 10 }, (_, i) => `d-${i}`)
await db.run('INSERT INTO class (id, school_id, name) VALUES ?', [
  classes.map((each, i) => [each, maren.school, `Class ${i}`]),
])
await db.run('INSERT INTO class_teacher (class_id, person_id) VALUES ?', [classes.map((each) => [each, maren.id])])
const people = Array.from({ length: 500 }, (_, i) => i)
await db.run('INSERT INTO person (id, school_id, role, name, email, password_hash, accommodation) VALUES ?', [
  people.map((i) => [
    `d-${i}`,
    maren.school,
    'student',
    `Dragged ${i}`,
    `d${i}@drag.example`,
    '',
    i < 40 ? JSON.stringify({ ...noAccommodation, factor: 1 + (i % 8) / 10, extraMinutes: i % 5 }) : null,
  ]),
])
await db.run('INSERT INTO enrolment (class_id, person_id) VALUES ?', [people.map((i) => [classes[i % 10]!, `d-${i}`])])
await createQuiz(db, maren, 'Five hundred', now, id)
const { quiz } = await loadQuiz(db, id)
await makeEdit(
  db,
  maren,
  id,
  0,
  'bench.1',
  together([
    addRows(quiz.content.sections[0]!.id, null, [
      newRow({ type: 'question', id: 'r1', question: 'q-datum', points: 1 }),
    ]),
    addTo(
      ['rules', 'windows'],
      null,
      classes.map((each, i) =>
        blankWindow({
          id: `w${i}`,
          classes: [each],
          opens: plus(now, (60 + i * 90) * minute),
          closes: plus(now, (180 + i * 90) * minute),
        }),
      ),
    ),
  ])!,
  now,
)

const server = await startServer(url)
const mine = await visitor(server.address, 'Maren Holt')
await mine.page.setViewportSize({ width: 1280, height: 800 })
await mine.page.goto(`/quizzes/${id}/rules`)
await mine.page.getByRole('slider', { name: 'Class 0, closes' }).waitFor({ timeout: 60_000 })
await mine.quiet()

// As text: what tsx makes of a function names helpers that the page does not have.
const drag = `new Promise(async (done) => {
  const handle = document.querySelector('[role=slider][aria-label="Class 0, closes"]')
  const { left, top } = handle.getBoundingClientRect()
  const at = (type, x) => new PointerEvent(type, { pointerId: 1, button: 0, clientX: x, clientY: top + 8, bubbles: true })
  handle.setPointerCapture = () => {}
  handle.dispatchEvent(at('pointerdown', left + 12))
  const frame = () => new Promise((next) => requestAnimationFrame(() => setTimeout(next, 0)))
  const times = []
  for (let i = 1; i <= 20; i++) {
    await new Promise((next) => setTimeout(next, 60))
    const before = handle.getAttribute('aria-valuetext')
    const began = performance.now()
    handle.dispatchEvent(at('pointermove', left + 12 + i * 12))
    await frame()
    times.push(handle.getAttribute('aria-valuetext') === before ? Infinity : performance.now() - began)
  }
  handle.dispatchEvent(at('pointercancel', left))
  done(times)
})`
const times = (await mine.page.evaluate(drag)) as number[]
const moved = times.filter(Number.isFinite).sort((a, b) => a - b)
if (moved.length < 15) throw new Error(`Only ${moved.length} of 20 moves moved it.`)
await closeBrowser()
await server.stop()
await db.close()
console.log(JSON.stringify({ 'rules.drag': { value: Number(moved[moved.length - 2]!.toFixed(1)), unit: 'ms' } }))
