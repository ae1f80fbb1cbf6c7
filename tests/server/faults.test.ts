/** What is acknowledged was done, whatever breaks between the application and its database, and wherever it breaks. */
import { request as httpRequest } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import { inBatches } from '../../server/database/batches'
import type { Database } from '../../server/database/database'
import { loadAttempt } from '../../server/domain/sittings/attempts'
import { startSitting } from '../../server/domain/sittings/start'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz } from '../support/quiz'
import { knowSitting, routes } from '../support/routes'
import { Caller, startServer, type Reply, type RunningServer } from '../support/server'
import { Wire } from '../support/wire'

let db: Database
let wire: Wire
let server: RunningServer
let student: Caller
let teacher: Caller
const nell = 'p-nell-ashdown'
const offset = Date.parse(later(5)) - Date.now()
const now = () => iso(Date.now() + offset)

beforeAll(async () => {
  const fresh = await freshDatabase('faults', day)
  db = fresh.db
  wire = await Wire.to(fresh.url)
  server = await startServer(wire.url)
  server.setClock(offset)
  await knowSitting(db, now())
  student = await new Caller(server.address).as(nell)
  teacher = await new Caller(server.address).as('p-maren')
})
afterAll(async () => {
  await server.stop()
  await wire.stop()
  await db.close()
})

async function timed(work: () => Promise<Reply>): Promise<{ reply: Reply; seconds: number }> {
  const began = performance.now()
  const reply = await work()
  return { reply, seconds: (performance.now() - began) / 1000 }
}

describe('a database that cannot be reached', () => {
  it.each(['refused', 'silent'] as const)(
    '(%s) is 503 with when to ask again, in a sentence, within 5 seconds, on every route; and all is well when it is back',
    async (way) => {
      const silas = await new Caller(server.address).as('p-silas-penn')
      wire.set(way)
      // Some at once, as many as a busy machine can serve: what is measured is the wait for the database.
      const tried: ({ file: string } & Awaited<ReturnType<typeof timed>>)[] = []
      await inBatches(routes, 20, async (part) => {
        tried.push(
          ...(await Promise.all(
            part.map(async ([method, file, path, body, expected]) => {
              const caller = expected.teacher === true ? teacher : silas
              return { file: `${method} ${file}`, ...(await timed(() => caller.call(method, path(), body?.()))) }
            }),
          )),
        )
      })
      wire.set('open')
      const faults = tried.filter(
        ({ reply, seconds }) =>
          seconds > 5 ||
          (reply.status !== 503 && reply.status >= 400) ||
          (reply.status === 503 &&
            !(Number(reply.headers.get('retry-after')) > 0 && /database/.test(reply.body.detail!))),
      )
      expect(faults.map(({ file, reply, seconds }) => [file, reply.status, seconds, reply.body])).toEqual([])
      // Only what asks nothing of the database is answered as ever, where who asks is remembered still.
      const alone = ['GET files/schema', 'GET files/formats', 'GET files/template', 'GET roster/template']
      const answered = tried.filter(({ reply }) => reply.status < 300).map(({ file }) => file)
      expect(answered.filter((file) => !alone.includes(file))).toEqual([])
      await expect
        .poll(async () => (await teacher.call('GET', '/api/quizzes')).status, { timeout: 10_000, interval: 200 })
        .toBe(200)
    },
  )
})

it('a row that another holds is 503 within 5 seconds as well, and kept when it is free', async () => {
  const attempt = await begin(await openedQuiz(db, 'held-row'))
  const answers = await lastAnswers(attempt)
  let letGo = () => {}
  const held = new Promise<void>((done) => {
    letGo = done
  })
  let isHeld = () => {}
  const taken = new Promise<void>((done) => {
    isHeld = done
  })
  const holder = db.transaction(async (tx) => {
    await tx.one('SELECT id FROM attempt WHERE id = ? FOR UPDATE', [attempt])
    isHeld()
    await held
  })
  await taken
  const save = () => student.call('POST', `/api/sittings/${attempt}/answers`, { lease: 1, answers })
  const hand = () => student.call('POST', `/api/sittings/${attempt}/hand-in`, { lease: 1, answers })
  for (const { reply, seconds } of await Promise.all([timed(save), timed(hand)])) {
    expect([reply.status, seconds < 5]).toEqual([503, true])
  }
  letGo()
  await holder
  expect((await save()).body.kept).toHaveLength(3)
  expect((await hand()).body.state).toBe('handed')
})

/** Does an act with the wire cut at each of its messages in turn, and looks each time what became of it. */
async function cutEverywhere(
  act: () => Promise<Reply>,
  look: (acknowledged: boolean) => Promise<void>,
): Promise<number> {
  let cuts = 0
  for (const lets of [false, true])
    for (let nth = 1; nth < 60; nth++) {
      wire.arm(nth, lets)
      const { reply, seconds } = await timed(act)
      const { cut } = wire
      wire.disarm()
      expect([200, 503], `cut at ${nth}: ${JSON.stringify(reply.body)}`).toContain(reply.status)
      expect(seconds).toBeLessThan(5)
      await look(reply.status === 200)
      if (!cut) break
      cuts++
    }
  return cuts
}

describe('a connection that breaks at any message', () => {
  it('saves: an answer that was acknowledged is there; sent again it is there once', async () => {
    const quiz = await openedQuiz(db, 'cut-save')
    const attempt = await begin(quiz)
    const [first, second] = Object.values(await itemsOf(db, attempt)).map(({ item }) => item)
    let seq = 0
    const cuts = await cutEverywhere(
      () => {
        seq++
        return student.call('POST', `/api/sittings/${attempt}/answers`, {
          lease: 1,
          answers: [first!, second!].map((item) => ({ item, response: null, flagged: seq % 2 === 1, seq })),
        })
      },
      async (acknowledged) => {
        const rows = await db.rows<{ seq: number }>('SELECT seq FROM answer WHERE attempt_id = ? AND item IN (?)', [
          attempt,
          [first!, second!],
        ])
        if (acknowledged) expect(rows).toEqual([{ seq }, { seq }])
        // Both or none: the same statement.
        expect(new Set(rows.map((row) => row.seq)).size).toBe(1)
      },
    )
    expect(cuts).toBeGreaterThanOrEqual(2)
  })

  it('hands in: with its answers, once, whole; or it says that it was not done and can be said again', async () => {
    const quiz = await openedQuiz(db, 'cut-hand', {
      attempts: { count: null, wait: 0, draw: 'fresh', untilPassed: false, untilShare: null, cost: 0, again: false },
    })
    let attempt = await begin(quiz)
    let answers = await lastAnswers(attempt)
    const handIn = () => student.call('POST', `/api/sittings/${attempt}/hand-in`, { lease: 1, answers })
    const cuts = await cutEverywhere(handIn, async (acknowledged) => {
      const ended = await loadAttempt(db, attempt)
      if (acknowledged) expect(ended.state).toBe('handed')
      const again = await handIn()
      expect([again.status, (again.body.saved as { kept: string[] }).kept.length]).toEqual([200, 3])
      const after = await loadAttempt(db, attempt)
      expect([after.state, after.score]).toEqual(['handed', '1'])
      if (ended.state === 'handed') expect(after.handedInAt).toBe(ended.handedInAt)
      const [{ lines, marks }] = (await db.rows<{ lines: number; marks: number }>(
        "SELECT (SELECT COUNT(*) FROM record WHERE subject = ? AND what = 'handed in') AS `lines`, (SELECT COUNT(*) FROM mark WHERE attempt_id = ?) AS marks",
        [attempt, attempt],
      )) as [{ lines: number; marks: number }]
      expect([lines, marks]).toEqual([1, 3])
      attempt = await begin(quiz)
      answers = await lastAnswers(attempt)
    })
    expect(cuts).toBeGreaterThanOrEqual(12)
  })

  it('edits: one that was acknowledged is there once, however often it is sent', async () => {
    const quiz = await openedQuiz(db, 'cut-edit')
    let turn = 0
    let token = ''
    const edit = () =>
      teacher.call('POST', `/api/quizzes/${quiz}/edits`, {
        on: 0,
        token,
        edit: { do: 'set', path: ['rules', 'limit'], was: 60 + turn - 1, value: 60 + turn },
      })
    const next = () => {
      turn++
      token = `cuts${turn}.1`
    }
    next()
    const cuts = await cutEverywhere(edit, async (acknowledged) => {
      const limit = (await loadQuiz(db, quiz)).quiz.rules.limit
      if (acknowledged) expect(limit).toBe(60 + turn)
      expect((await edit()).status).toBe(200)
      const { quiz: now, revision } = await loadQuiz(db, quiz)
      expect([now.rules.limit, revision]).toEqual([60 + turn, 1 + turn])
      next()
    })
    expect(cuts).toBeGreaterThanOrEqual(8)
  })
})

describe('a request that is held back', () => {
  /** Sends the head and the first half of a request, does something, then sends the rest. */
  async function heldBack(path: string, body: unknown, meanwhile: () => void): Promise<Reply['body']> {
    const text = JSON.stringify(body)
    const half = Math.floor(text.length / 2)
    const request = httpRequest(server.address + path, {
      method: 'POST',
      headers: { ...student.headers, 'content-type': 'application/json', 'content-length': text.length },
    })
    const replied = new Promise<string>((done, failed) => {
      request.on('error', failed)
      request.on('response', (response) => {
        let all = ''
        response.on('data', (part: Buffer) => (all += part.toString()))
        response.on('end', () => done(all))
      })
    })
    request.write(text.slice(0, half))
    // The server has begun to read it when another request, sent after it, has been answered.
    await student.call('GET', '/api/health')
    await student.call('GET', '/api/health')
    meanwhile()
    request.end(text.slice(half))
    return JSON.parse(await replied) as Reply['body']
  }
  const overTime = () => server.setClock(offset + 90 * 60_000)

  it('is of the instant at which it is whole: an answer after the hard stop is not in time', async () => {
    const attempt = await begin(await openedQuiz(db, 'held-save'))
    const [item] = Object.values(await itemsOf(db, attempt)).map((each) => each.item)
    const answers = [{ item: item!, response: null, flagged: true, seq: 1 }]
    const reply = await heldBack(`/api/sittings/${attempt}/answers`, { lease: 1, answers }, overTime)
    server.setClock(offset)
    expect(reply.refused).toEqual([{ item, reason: 'ended' }])
  })
  it('hands in when it is whole, dated by the clock where that came first', async () => {
    const quiz = await openedQuiz(db, 'held-hand')
    const attempt = await begin(quiz)
    const { limits } = await loadAttempt(db, attempt)
    await heldBack(`/api/sittings/${attempt}/hand-in`, { lease: 1, answers: await lastAnswers(attempt) }, overTime)
    server.setClock(offset)
    expect(await loadAttempt(db, attempt)).toMatchObject({ endedBy: 'clock', handedInAt: limits.deadline, score: '0' })
  })
  it('that breaks off does nothing', async () => {
    const attempt = await begin(await openedQuiz(db, 'held-broken'))
    const request = httpRequest(`${server.address}/api/sittings/${attempt}/hand-in`, {
      method: 'POST',
      headers: { ...student.headers, 'content-type': 'application/json', 'content-length': 100 },
    })
    request.on('error', () => {})
    request.write('{"lease":1')
    await student.call('GET', '/api/health')
    request.destroy()
    await student.call('GET', '/api/health')
    expect((await loadAttempt(db, attempt)).state).toBe('open')
  })
})

async function begin(quiz: string): Promise<string> {
  return (await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, now())).attempt
}
async function lastAnswers(attempt: string) {
  const items = await itemsOf(db, attempt)
  return [
    { item: items['q-cover']!.item, response: { text: '2.3' }, flagged: false, seq: 1 },
    { item: items['q-clearing']!.item, response: { text: 'something else' }, flagged: false, seq: 2 },
    { item: items['q-datum']!.item, response: null, flagged: true, seq: 3 },
  ]
}
