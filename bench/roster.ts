/**
 * A roster of 20,000 enrolments looked at and taken in, through the routes; the register of a class of 500 with ten quizzes, to the last row usable in the
 * browser.
 */
import { iso, plus } from '../core/kit/time'
import { addRows, addTo, newRow, together } from '../core/quiz'
import { seedDemo } from '../demo/seed'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { makeEdit } from '../server/domain/quizzes/edits'
import { openQuiz } from '../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../server/domain/quizzes/quizzes'
import { findPerson } from '../server/people/people'
import { closeBrowser, visitor } from '../tests/support/browser'
import { manyRows, rosterFile } from '../tests/support/roster'
import { Caller, startServer } from '../tests/support/server'

const url = process.env.THISTLE_DATABASE_URL!
const db = openDatabase(url, 4, patient)
await migrate(db)
const now = iso(Date.now())
await seedDemo(db, now)
const maren = (await findPerson(db, 'p-maren'))!

/** A class of 500 and ten quizzes of its own. */
async function layOut(): Promise<void> {
  await db.run("INSERT IGNORE INTO class (id, school_id, name) VALUES ('c-500', ?, 'Five hundred')", [maren.school])
  await db.run("INSERT IGNORE INTO class_teacher (class_id, person_id) VALUES ('c-500', 'p-maren')")
  const people = Array.from({ length: 500 }, (_, i) => i)
  await db.run('INSERT IGNORE INTO person (id, school_id, role, name, email, password_hash) VALUES ?', [
    people.map((i) => [`f-${i}`, maren.school, 'student', `Fivehundredth ${i}`, `f${i}@five.example`, '']),
  ])
  await db.run('INSERT IGNORE INTO enrolment (class_id, person_id) VALUES ?', [people.map((i) => ['c-500', `f-${i}`])])
  for (let q = 0; q < 10; q++) {
    const id = `five-${q}`
    await createQuiz(db, maren, `Quiz ${q}`, now, id)
    const { quiz } = await loadQuiz(db, id)
    const window = {
      id: 'w',
      classes: ['c-500'],
      opens: plus(now, -3_600_000),
      closes: plus(now, 86_400_000 * (q + 1)),
      due: null,
      latestStart: null,
      groups: [],
      students: [],
      closedAt: null,
      password: null,
    }
    const rows = ['q-datum', 'q-cover'].map((question) =>
      newRow({ type: 'question', id: `r-${question}`, question, points: 1 }),
    )
    await makeEdit(
      db,
      maren,
      id,
      0,
      'bench.1',
      together([addRows(quiz.content.sections[0]!.id, null, rows), addTo(['rules', 'windows'], null, [window])])!,
      now,
    )
    await openQuiz(db, maren, id, now)
    await db.run(
      `INSERT INTO attempt (id, quiz_id, edition_id, student_id, number, window_id, state, started_at, deadline, on_time_until, hard_stop, handed_in_at, ended_by, lease, device, paper, score, score_rounded, possible, marked_at)
      SELECT CONCAT('a-', ?, '-', p.id), q.id, q.edition_id, p.id, 1, 'w', 'handed', NOW(3), NOW(3), NOW(3), NOW(3), NOW(3), 'student', 1, 'd', '{"items":[]}', '1', 1, '2', NOW(3)
      FROM quiz q JOIN person p ON p.id LIKE 'f-%' WHERE q.id = ?`,
      [q, id],
    )
  }
}
await layOut()

const server = await startServer(url)
const { page } = await visitor(server.address, 'Maren Holt')
const opened: number[] = []
for (let i = 0; i < 3; i++) {
  await page.goto('/classes')
  await page.getByRole('link', { name: 'Five hundred' }).waitFor()
  const began = performance.now()
  await page.getByRole('link', { name: 'Five hundred' }).click()
  const last = page.locator('main [role=row]').nth(500).locator('input')
  await last.check()
  opened.push(performance.now() - began)
}
await closeBrowser()

const caller = await new Caller(server.address).as('p-maren')
const files = [rosterFile(manyRows(20_000))]
const began = performance.now()
const look = await caller.call('POST', '/api/roster/look', { files })
const looked = performance.now()
if (look.status !== 200) throw new Error(JSON.stringify(look.body))
const { mark, counts } = look.body as unknown as { mark: string; counts: { enrolments: number } }
if (counts.enrolments !== 20_000) throw new Error('Not all enrolments were read.')
const begins = performance.now()
const take = await caller.call('POST', '/api/roster', { files, mark, takeOut: false })
const taken = performance.now()
if (take.status !== 200) throw new Error(JSON.stringify(take.body))
await server.stop()
await db.close()
console.log(
  JSON.stringify({
    'roster.look': { value: Number(((looked - began) / 1000).toFixed(2)), unit: 's' },
    'roster.take': { value: Number(((taken - begins) / 1000).toFixed(2)), unit: 's' },
    'class.open': { value: Math.round(opened.sort((a, b) => a - b)[1]!), unit: 'ms' },
  }),
)
process.exit(0)
