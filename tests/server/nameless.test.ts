/**
 * Papers without names: whose a paper is makes no difference to anything that a teacher or the administrator can get
 * (non-interference). Two students swap all that belongs to them and not to their paper — who they are, when and how often
 * they sat, how late, from what device — and every reply, feed, letter and file is byte for byte the same.
 */
import { unzipSync } from 'fflate'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { ms } from '../../core/kit/time'
import { usualRules } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { attemptColumns } from '../../server/domain/sittings/attempts'
import { endSitting } from '../../server/domain/sittings/end'
import { handIn } from '../../server/domain/sittings/hand-in'
import { noteAway } from '../../server/domain/sittings/away'
import { saveAnswers } from '../../server/domain/sittings/save'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz, threeHours } from '../support/quiz'
import { routes } from '../support/routes'
import { Caller, startServer, type RunningServer } from '../support/server'

const [nell, petra, silas] = ['p-nell-ashdown', 'p-petra-lund', 'p-silas-penn'] as const
const quiz = 'unnamed'
let db: Database
let url: string
let server: RunningServer
let calendar: string
beforeAll(async () => {
  ;({ db, url } = await freshDatabase('nameless', day))
})
afterAll(() => db.close())

async function serve() {
  server = await startServer(url, undefined, 3600, { THISTLE_ADDRESS: 'http://thistle.example' })
  server.setClock(ms(later(100)) - Date.now())
}

/** Two papers: one early and whole, as a second attempt; one late, over time, ended by the clock, with answers set aside. */
async function sitBoth(): Promise<[string, string]> {
  await openedQuiz(db, quiz, {
    anonymous: true,
    places: 3,
    attempts: { ...usualRules.attempts, count: 3 },
    limit: 20,
    grace: 5,
    atDeadline: 'finish',
    late: { ...usualRules.late, accepted: true, lastDays: 5 },
    watched: true,
    oneSitting: 10,
    windows: [{ ...threeHours('c-tuesday'), due: later(15) }],
  })
  const start = async (student: string, minutes: number, device = 'd1') =>
    (await startSitting(db, await person(db, student), quiz, { device }, later(minutes))).attempt
  const save = async (student: string, attempt: string, text: string, minutes: number, lease = 1) => {
    const items = await itemsOf(db, attempt)
    const { item } = items['q-cover']!
    return saveAnswers(
      db,
      student,
      attempt,
      lease,
      [{ item, response: { text }, flagged: true, seq: minutes }],
      later(minutes),
    )
  }
  const first = await start(nell, 0)
  await handIn(db, nell, first, 1, [], later(1))
  const early = await start(nell, 2)
  await save(nell, early, '2.3', 3)
  await noteAway(db, nell, early, { token: 'away-token', seconds: 30 }, later(4))
  await handIn(db, nell, early, 1, [], later(5))
  const late = await start(petra, 10, 'd2')
  await save(petra, late, '9.9', 12)
  await save(petra, late, '7.7', 40)
  await save(petra, late, '1.1', 41, 9)
  await endSitting(db, late, { by: 'student', lease: 1 }, later(45))
  // One whose mark waits for somebody, so that letters and calendars have something to tell.
  await db.run('UPDATE attempt SET score = NULL, score_rounded = NULL WHERE id = ?', [early])
  await start(silas, 95)
  return [early, late]
}

/** What belongs to a paper itself; all else of an attempt says how it was sat. */
const ofPaper = ['id', 'quiz_id', 'edition_id', 'state', 'page', 'score', 'possible', 'section_scores']
const facts = [...attemptColumns.filter((name) => !ofPaper.includes(name)), 'touched', 'begun_on']

/** Swaps the students of two papers, with all that tells of how they sat. The papers stay what they are. */
async function swap([one, two]: readonly [string, string]): Promise<void> {
  const rows = await db.rows<Record<string, string>>(`SELECT id, ${facts.join(', ')} FROM attempt WHERE id IN (?)`, [
    [one, two],
  ])
  const of = new Map(rows.map((row) => [row.id!, row]))
  const set = (id: string, from: Record<string, string>) =>
    db.run(`UPDATE attempt SET ${facts.map((name) => `${name} = ?`).join(', ')} WHERE id = ?`, [
      ...facts.map((name) => from[name]!),
      id,
    ])
  await db.run('UPDATE attempt SET number = 99 WHERE id = ?', [one])
  await set(two, of.get(one)!)
  await set(one, of.get(two)!)
  for (const table of ['attempt_away']) {
    await db.run(`UPDATE ${table} SET attempt_id = CASE attempt_id WHEN ? THEN ? ELSE ? END WHERE attempt_id IN (?)`, [
      one,
      two,
      one,
      [one, two],
    ])
  }
  // Lines of the record are about what somebody did, and when.
  await db.run('UPDATE record SET subject = CASE subject WHEN ? THEN ? ELSE ? END WHERE subject IN (?)', [
    one,
    two,
    one,
    [one, two],
  ])
  await db.run('UPDATE answer_aside SET arrived_at = ? WHERE attempt_id IN (?)', [
    '2030-05-14 09:59:00.000',
    [one, two],
  ])
}

/** What differs from request to request by itself: the time of the server. */
const still = (text: string): string =>
  text
    // Nothing was sat or changed this late: what is, is the time of the request.
    .replace(/\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z/g, (at) => (at >= later(99) ? 'now' : at))
    .replace(/Written [^.]*\./g, 'Written.')
    .replace(/DTSTAMP:\S+/g, 'DTSTAMP')

async function bytesOf(caller: Caller, method: string, path: string, body?: unknown): Promise<string> {
  const reply = await fetch(server.address + path, {
    method,
    headers: { ...caller.headers, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
    body: body === undefined ? undefined : JSON.stringify(body),
  })
  const bytes = new Uint8Array(await reply.arrayBuffer())
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b
  const text = isZip
    ? Object.entries(unzipSync(bytes))
        .map(([name, file]) => `${name}\n${new TextDecoder().decode(file)}`)
        .join('\n')
    : new TextDecoder().decode(bytes)
  return `${reply.status} ${still(text)}`
}

/** Everything that a teacher of the quiz, who is the administrator too, can ask for without changing anything. */
async function everything(papers: readonly string[]): Promise<Map<string, string>> {
  const maren = await new Caller(server.address).as('p-maren')
  const asked = new Map<string, [method: string, path: string, body?: unknown]>()
  const ask = (method: string, path: string, body?: unknown) =>
    asked.set(`${method} ${path} ${JSON.stringify(body) ?? ''}`, [method, path, body])
  for (const [method, file, path, , expected] of routes) {
    if (method !== 'GET' || expected.teacher !== true || file === 'quizzes/[id]/live') continue
    for (const student of [nell, petra])
      for (const paper of papers) {
        const mine = path()
          .replace(/quiz-(buoys|tides|lights|chart)/g, quiz)
          .replace(/p-(bram-oakes|walk|petra-lund|nell-ashdown|kit-sorrel|silas-penn)\b/g, student)
          .replace(/c-(saturday|walk)/g, 'c-tuesday')
        ask('GET', file === 'quizzes/[id]/marks/[attempt]' ? `/api/quizzes/${quiz}/marks/${paper}` : mine)
      }
  }
  for (const about of ['quiz', 'papers']) ask('GET', `/api/quizzes/${quiz}/record?about=${about}`)
  for (const student of [nell, petra]) {
    ask('GET', `/api/students/${student}`)
    ask('GET', `/api/people/${student}/data`)
    ask('GET', `/api/quizzes/${quiz}/why?student=${student}`)
    ask('GET', `/api/quizzes/${quiz}/close?student=${student}`)
    ask('GET', `/api/find?words=${student.split('-')[1]!}`)
    for (const name of ['opening', 'times', 'reminder', 'receipt', 'marked'])
      ask('GET', `/api/quizzes/${quiz}/letter?student=${student}&name=${name}`)
    for (const fresh of [true, false])
      for (const path of ['my/quizzes', `my/quizzes/${quiz}`])
        ask('POST', `/api/quizzes/${quiz}/rehearsal`, {
          rehearsal: { who: { student }, content: 'open', fresh, draw: 0, acts: [], at: later(101) },
          ask: { method: 'GET', path, query: {} },
        })
  }
  const replies = new Map<string, string>()
  for (const [name, [method, path, body]] of asked) replies.set(name, await bytesOf(maren, method, path, body))
  replies.set('calendar', await bytesOf(new Caller(server.address), 'GET', calendar))
  return replies
}

it('swapping two students changes no byte', async () => {
  const papers = await sitBoth()
  await serve()
  const maren = await new Caller(server.address).as('p-maren')
  const made = await maren.call('POST', '/api/my/calendar/address')
  calendar = new URL(
    Object.values(made.body).find(
      (value): value is string => typeof value === 'string' && value.includes('/api/calendar/'),
    )!,
    server.address,
  ).pathname
  await db.run('UPDATE answer_aside SET arrived_at = ? WHERE attempt_id IN (?)', [
    '2030-05-14 09:59:00.000',
    [...papers],
  ])
  const before = await everything(papers)
  await server.stop()
  await swap(papers)
  await serve()
  const after = await everything(papers)
  await server.stop()
  const told = [...before].filter(([, reply]) => reply.startsWith('200'))
  expect(told.length).toBeGreaterThan(80)
  const differ = [...before].filter(([name, reply]) => after.get(name) !== reply).map(([name]) => name)
  for (const name of differ) expect(after.get(name), name).toBe(before.get(name))
  // The papers themselves are told, so there was something to trace.
  const marks = before.get(`GET /api/quizzes/${quiz}/marks `)!
  expect(papers.every((paper) => marks.includes(paper))).toBe(true)
  expect(marks).not.toMatch(/number|startedAt|daysLate|minutesOver|endedBy/)
  expect(before.get('calendar')).toContain('BEGIN:VEVENT')
}, 120_000)

it('shows nothing of a paper under way but that there is one', async () => {
  await serve()
  const maren = await new Caller(server.address).as('p-maren')
  const { body } = await maren.call('GET', `/api/quizzes/${quiz}/marks`)
  const [open] = await db.rows<{ id: string }>("SELECT id FROM attempt WHERE quiz_id = ? AND state = 'open'", [quiz])
  expect(body.sitting).toBe(1)
  expect(JSON.stringify(body)).not.toContain(open!.id)
  expect((await maren.call('GET', `/api/quizzes/${quiz}/marks/${open!.id}`)).status).toBe(409)
  await server.stop()
})
