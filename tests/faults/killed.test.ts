/**
 * Server, database and connections are killed 40 times under 200 sittings and two teachers: every answer, hand-in and
 * edit that was acknowledged is looked up afterwards. None is lost, none is there twice, nothing was said to be done
 * that was not.
 */
import type { ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { iso, minute, plus } from '../../core/kit/time'
import { seedDemo } from '../../demo/seed'
import { openDatabase, patient, type Database } from '../../server/database/database'
import { migrate } from '../../server/database/migrate'
import { editTo, usualRules, type Quiz } from '../../core/quiz'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { person } from '../support/database'
import { itemsOf, threeRows } from '../support/quiz'
import { Started } from '../support/started'
import { Wire } from '../support/wire'
// @ts-expect-error -- the start scripts are plain JavaScript
import { keepRunning } from '../../scripts/lib/keep-running.mjs'
// @ts-expect-error -- the start scripts are plain JavaScript
import { layOutMariadb } from '../../scripts/lib/mariadb.mjs'

type Keep = (name: string, start: () => Promise<ChildProcess>) => Promise<{ stop(): Promise<void> }>
const kills = 40
const sittings = 200
const pause = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds))
const folder = mkdtempSync(join(tmpdir(), 'thistle-faults-'))
const quiz = 'quiz-faults'
const studentOf = (i: number) => `p-fault-${i}`

let keeper: { stop(): Promise<void> }
let mariadb: ChildProcess
let db: Database
let wire: Wire
let thistle: Started

beforeAll(async () => {
  const laidOut = (await (layOutMariadb as (folder: string) => Promise<unknown>)(join(folder, 'db'))) as {
    url: string
    launch: () => Promise<ChildProcess>
  }
  keeper = await (keepRunning as Keep)('The database', async () => {
    await pause(Math.random() * 1000)
    return (mariadb = await laidOut.launch())
  })
  db = openDatabase(laidOut.url, 4, patient)
  await migrate(db)
  await seedDemo(db, iso(Date.now()))
  await layOutSchool()
  wire = await Wire.to(laidOut.url)
  thistle = await Started.in(join(folder, 'app'), { THISTLE_DATABASE_URL: wire.url })
  await thistle.until('the first page', thistle.serves, 200)
}, 300_000)
afterAll(async () => {
  thistle.killAll()
  await wire.stop()
  await db.close()
  await keeper.stop()
  rmSync(folder, { recursive: true, force: true })
})

async function layOutSchool(): Promise<void> {
  const people = Array.from({ length: sittings }, (_, i) => i)
  await db.run('INSERT INTO person (id, school_id, role, name, email, password_hash) VALUES ?', [
    people.map((i) => [studentOf(i), 'gannet', 'student', `Student ${i}`, `fault${i}@gannet.example`, 'none']),
  ])
  await db.run('INSERT INTO enrolment (class_id, person_id) VALUES ?', [people.map((i) => ['c-tuesday', studentOf(i)])])
  const now = iso(Date.now())
  const maren = await person(db, 'p-maren')
  await createQuiz(db, maren, 'Under faults', now, quiz)
  const { quiz: blank } = await loadQuiz(db, quiz)
  const window = { id: 'w1', classes: ['c-tuesday'], opens: plus(now, -5 * minute), closes: plus(now, 300 * minute) }
  const whole: Quiz = {
    content: { ...blank.content, sections: [{ ...blank.content.sections[0]!, rows: threeRows }] },
    rules: {
      ...usualRules,
      windows: [{ ...window, due: null, latestStart: null, groups: [], students: [], closedAt: null, password: null }],
      limit: 200,
    },
  }
  await makeEdit(db, maren, quiz, 0, 'test.1', editTo(blank, whole)!, now)
  await openQuiz(db, maren, quiz, now)
}

/** Asks until it is answered: a fault is no answer, as it is none to the page. */
async function ask(
  cookie: string,
  method: string,
  path: string,
  body?: unknown,
): Promise<{ status: number; body: unknown; cookie: string }> {
  for (;;) {
    try {
      const reply = await fetch(thistle.address + path, {
        method,
        headers: { origin: thistle.address, 'content-type': 'application/json', ...(cookie ? { cookie } : {}) },
        body: body === undefined ? undefined : JSON.stringify(body),
        signal: AbortSignal.timeout(8000),
      })
      const read = (await reply.json()) as unknown
      if (reply.status < 500) {
        const [set] = reply.headers.getSetCookie()
        return { status: reply.status, body: read, cookie: set ? set.split(';')[0]! : cookie }
      }
    } catch {
      /* the connection broke, or nobody listens just now */
    }
    await pause(100 + Math.random() * 300)
  }
}

interface Acknowledged {
  attempt: string
  /** By item, the newest that was kept. */
  answers: Map<string, { seq: number; text: string }>
}

/** Items of a paper that are answered with a text; asked of the database itself, which may be away just now. */
async function textItems(attempt: string): Promise<string[]> {
  for (;;) {
    try {
      const items = Object.values(await itemsOf(db, attempt))
      return items.filter((each) => !Object.keys(each.options).length).map((each) => each.item)
    } catch {
      await pause(200)
    }
  }
}

let ending = false
let acknowledged = 0
async function sit(i: number): Promise<Acknowledged> {
  const { cookie } = await ask('', 'POST', '/api/session/demo', { person: studentOf(i) })
  const started = await ask(cookie, 'POST', `/api/my/quizzes/${quiz}/start`, { device: `d${i}` })
  const { attempt } = started.body as { attempt: string }
  const opened = await ask(cookie, 'POST', `/api/sittings/${attempt}/open`, { device: `d${i}` })
  const { lease } = opened.body as { lease: number }
  const texts = await textItems(attempt)
  const answers = new Map<string, { seq: number; text: string }>()
  let seq = 0
  const written = (item: string, text: string) => ({ item, response: { text }, flagged: false, seq: ++seq })
  while (!ending) {
    const item = texts[seq % texts.length]!
    const answer = written(item, `${seq}`)
    const { status, body } = await ask(cookie, 'POST', `/api/sittings/${attempt}/answers`, { lease, answers: [answer] })
    if (status !== 200) throw new Error(`A save was refused: ${JSON.stringify(body)}`)
    acknowledged++
    if ((body as { kept: string[] }).kept.includes(item))
      answers.set(item, { seq: answer.seq, text: answer.response.text })
    await pause(200 + Math.random() * 600)
  }
  const last = texts.map((item) => written(item, `last ${seq}`))
  const { status, body } = await ask(cookie, 'POST', `/api/sittings/${attempt}/hand-in`, { lease, answers: last })
  if (status !== 200) throw new Error(`A hand-in was refused: ${JSON.stringify(body)}`)
  for (const answer of last) answers.set(answer.item, { seq: answer.seq, text: answer.response.text })
  return { attempt, answers }
}

/** A teacher who goes on changing a quiz of theirs. @returns the tokens of the edits that were acknowledged */
async function edit(person: string, name: string): Promise<{ id: string; tokens: string[] }> {
  const { cookie } = await ask('', 'POST', '/api/session/demo', { person })
  const made = await ask(cookie, 'POST', '/api/quizzes', { title: name })
  const { id } = made.body as { id: string }
  const tokens: string[] = []
  let title = name
  for (let n = 1; !ending; n++) {
    const token = `fault.${n}`
    const next = `${name} ${n}`
    const sent = { on: n - 1, token, edit: { do: 'set', path: ['content', 'title'], was: title, value: next } }
    const { status, body } = await ask(cookie, 'POST', `/api/quizzes/${id}/edits`, sent)
    if (status !== 200) throw new Error(`An edit was refused: ${JSON.stringify(body)}`)
    tokens.push(token)
    title = next
    await pause(150 + Math.random() * 300)
  }
  return { id, tokens }
}

async function killAll(): Promise<Record<string, number>> {
  const done: Record<string, number> = { server: 0, database: 0, connections: 0 }
  for (let n = 0; n < kills; n++) {
    // Work goes on between two of them: what is killed has something to lose.
    await thistle.until('it to serve again', thistle.serves, 60)
    await pause(500 + Math.random() * 2000)
    const what = (['server', 'database', 'connections'] as const)[n % 3]!
    if (what === 'server') {
      process.kill(thistle.named('server/index.mjs').pid, 'SIGKILL')
    } else if (what === 'database') {
      process.kill(mariadb.pid!, 'SIGKILL')
      await new Promise((ended) => mariadb.once('exit', ended))
    } else wire.cutNow()
    done[what]!++
  }
  return done
}

it(`${kills} kills under ${sittings} sittings`, async () => {
  const work = Promise.all([
    Promise.all(Array.from({ length: sittings }, (_, i) => sit(i))),
    Promise.all([edit('p-maren', 'Edited by one'), edit('p-idris', 'Edited by another')]),
  ])
  const done = await Promise.race([killAll(), work.then(() => ({}))])
  ending = true
  const [papers, edited] = await work

  let lookedUp = 0
  const kept = await db.rows<{ attempt_id: string; item: string; response: string; seq: number }>(
    'SELECT attempt_id, item, response, seq FROM answer WHERE attempt_id IN (?)',
    [papers.map(({ attempt }) => attempt)],
  )
  const keptOf = new Map(kept.map((row) => [`${row.attempt_id} ${row.item}`, row]))
  for (const { attempt, answers } of papers)
    for (const [item, { seq, text }] of answers) {
      lookedUp++
      expect(keptOf.get(`${attempt} ${item}`)).toMatchObject({ seq, response: JSON.stringify({ text }) })
    }
  // Each student has one sitting, handed in once, by themselves, with every item marked once.
  const rows = await db.rows<{ student_id: string; state: string; ended_by: string; marks: number; items: number }>(
    `SELECT a.student_id, a.state, a.ended_by, (SELECT COUNT(*) FROM mark m WHERE m.attempt_id = a.id) AS marks,
    (SELECT COUNT(*) FROM answer w WHERE w.attempt_id = a.id) AS items FROM attempt a WHERE a.quiz_id = ?`,
    [quiz],
  )
  expect(rows).toHaveLength(sittings)
  expect(new Set(rows.map((row) => row.student_id)).size).toBe(sittings)
  for (const row of rows) expect(row).toMatchObject({ state: 'handed', ended_by: 'student', marks: row.items })
  const records = await db.rows<{ n: number }>(
    "SELECT COUNT(*) AS n FROM record WHERE what = 'handed in' AND subject IN (?) GROUP BY subject",
    [papers.map(({ attempt }) => attempt)],
  )
  expect(records.map(({ n }) => Number(n))).toEqual(Array(sittings).fill(1))
  for (const { id, tokens } of edited) {
    const edits = await db.rows<{ token: string; revision: number }>(
      'SELECT token, revision FROM quiz_edit WHERE quiz_id = ? ORDER BY revision',
      [id],
    )
    expect(edits).toEqual(tokens.map((token, i) => ({ token, revision: i + 1 })))
  }
  // There was something to lose.
  expect(acknowledged).toBeGreaterThan(sittings)
  expect(edited.flatMap(({ tokens }) => tokens).length).toBeGreaterThan(10)
  expect(Object.values(done).reduce((sum, n) => sum + n, 0)).toBe(kills)
  console.log(
    'killed',
    done,
    `${acknowledged} saves (${lookedUp} newest answers), ${sittings} hand-ins, ${edited.flatMap(({ tokens }) => tokens).length} edits acknowledged: 0 lost, 0 twice`,
  )
})
