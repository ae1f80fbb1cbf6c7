/**
 * Lists and checks of a school of 2,000: My quizzes of a student with 40 quizzes, requests a second at 24 at a time;
 * seconds to open a quiz for everybody.
 */
import { iso, minute, plus } from '../core/kit/time'
import { editTo, newRow, usualRules, type Quiz } from '../core/quiz'
import { seedDemo } from '../demo/seed'
import { toSql } from '../server/database/codec'
import { openDatabase, patient, type Database } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { makeEdit } from '../server/domain/quizzes/edits'
import { openQuiz } from '../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../server/domain/quizzes/quizzes'
import { findPerson, type Person } from '../server/people/people'
import { Caller, startServer } from '../tests/support/server'

const url = process.env.THISTLE_DATABASE_URL!
const db = openDatabase(url, 8, patient)
await migrate(db)
await seedDemo(db, iso(Date.now()))
const now = iso(Date.now())
const maren = (await findPerson(db, 'p-maren'))!
const school = { students: 2000, classes: 20, quizzes: 40 }
const student = (i: number) => `s-${i}`

async function enrol(): Promise<void> {
  const classes = Array.from({ length: school.classes }, (_, i) => `big-${i}`)
  await db.run('INSERT IGNORE INTO class (id, school_id, name) VALUES ?', [classes.map((id) => [id, maren.school, id])])
  const people = Array.from({ length: school.students }, (_, i) => i)
  await db.run('INSERT IGNORE INTO person (id, school_id, role, name, email, password_hash, accommodation) VALUES ?', [
    people.map((i) => {
      const extra =
        i % 10 ? null : JSON.stringify({ factor: 1 + (i % 7) / 10, extraMinutes: i % 30, stretchWindow: i % 20 === 0 })
      return [student(i), maren.school, 'student', `Student ${i}`, `s${i}@big.example`, 'none', extra]
    }),
  ])
  await db.run('INSERT IGNORE INTO enrolment (class_id, person_id) VALUES ?', [
    people.map((i) => [classes[i % classes.length]!, student(i)]),
  ])
}

/** A quiz for the whole school, in draft. */
async function draft(id: string, author: Person, days: number): Promise<void> {
  await createQuiz(db, author, `Quiz ${id}`, now, id)
  const { quiz } = await loadQuiz(db, id)
  const day = 24 * 60 * minute
  const whole: Quiz = {
    content: {
      ...quiz.content,
      sections: [
        {
          ...quiz.content.sections[0]!,
          rows: ['q-datum', 'q-cover', 'q-clearing'].map((question) =>
            newRow({ type: 'question', id: `r-${question}`, question, points: 1 }),
          ),
        },
      ],
    },
    rules: {
      ...usualRules,
      windows: Array.from({ length: 4 }, (_, w) => ({
        id: `w${w}`,
        classes: Array.from({ length: school.classes / 4 }, (__, c) => `big-${c * 4 + w}`),
        opens: plus(now, (days - 1) * day),
        closes: plus(now, (days + 3 + w) * day),
        due: null,
        latestStart: null,
        groups: [],
        students: [],
        closedAt: null,
        password: null,
      })),
      limit: 45,
    },
  }
  await makeEdit(db, author, id, 0, 'bench.1', editTo(quiz, whole)!, now)
}

/** Everybody has sat every second quiz. */
async function sitAll(database: Database): Promise<void> {
  for (let q = 0; q < school.quizzes; q += 2) {
    await database.run(
      `INSERT INTO attempt (id, quiz_id, edition_id, student_id, number, window_id, state, started_at, deadline, on_time_until, hard_stop, handed_in_at, ended_by, lease, device, paper, score, score_rounded, possible, marked_at)
      SELECT CONCAT('a-', ?, '-', p.id), q.id, q.edition_id, p.id, 1, 'w0', 'handed', ?, ?, ?, ?, ?, 'student', 1, 'd', '{"items":[]}', '2', 2, '3', ?
      FROM quiz q JOIN person p ON p.id LIKE 's-%' WHERE q.id = ?`,
      [q, ...Array.from({ length: 5 }, () => toSql(plus(now, -60 * minute))), toSql(now), `many-${q}`],
    )
  }
}

/** Requests a second of what is asked over and over, so many at a time. */
async function rate(ask: () => Promise<unknown>, atOnce: number, milliseconds: number): Promise<number> {
  const until = performance.now() + milliseconds
  let asked = 0
  const began = performance.now()
  await Promise.all(
    Array.from({ length: atOnce }, async () => {
      while (performance.now() < until) {
        await ask()
        asked++
      }
    }),
  )
  return asked / ((performance.now() - began) / 1000)
}

await enrol()
for (let q = 0; q < school.quizzes; q++) {
  // Half of them are over.
  await draft(`many-${q}`, maren, q % 4 < 2 ? -10 : q % 8)

  if (q) await openQuiz(db, maren, `many-${q}`, plus(now, -20 * 24 * 60 * minute))
}
const began = performance.now()
await openQuiz(db, maren, 'many-0', plus(now, -20 * 24 * 60 * minute))
const opened = (performance.now() - began) / 1000
await sitAll(db)
await db.run("INSERT IGNORE INTO enrolment (class_id, person_id) SELECT 'big-0', 'p-silas-penn'")

const server = await startServer(url)
const silas = await new Caller(server.address).as('p-silas-penn')
const ask = async () => {
  const reply = await fetch(`${server.address}/api/my/quizzes`, { headers: silas.headers })
  const { quizzes, detail } = (await reply.json()) as { quizzes?: unknown[]; detail?: string }
  if ((quizzes?.length ?? 0) < school.quizzes) throw new Error(detail ?? 'Not all quizzes are listed.')
}
await rate(ask, 24, 3000)
const perSecond = await rate(ask, 24, 6000)
await server.stop()
await db.close()
console.log(
  JSON.stringify({
    'my.list': { value: Math.round(perSecond), unit: 'requests/s' },
    'quiz.open': { value: Number(opened.toFixed(2)), unit: 's' },
  }),
)
process.exit(0)
