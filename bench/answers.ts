/** Answers saved through the HTTP route by 50 sittings at once, against the same guarded statement through mysql2, in one run. */
import { connect, type Socket } from 'node:net'
import { iso } from '../core/kit/time'
import { seedDemo } from '../demo/seed'
import { toSql } from '../server/database/codec'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { newId } from '../server/domain/ids'
import { loadPaper } from '../server/domain/sittings/attempts'
import { saveStatement } from '../server/domain/sittings/save-statement'
import { startServer } from '../tests/support/server'

const url = process.env.THISTLE_DATABASE_URL!
const db = openDatabase(url, 12, patient)
await migrate(db)
await seedDemo(db, iso(Date.now()))
const source = (await db.one<{ id: string }>(
  "SELECT id FROM attempt WHERE quiz_id = 'quiz-buoys' AND state = 'open' LIMIT 1",
))!.id
const paper = await loadPaper(db, source)
const student = paper.student
const attempts = Array.from({ length: 50 }, () => newId())
await db.run(
  `INSERT INTO attempt (id, quiz_id, edition_id, student_id, number, window_id, state, started_at, deadline, on_time_until, hard_stop, lease, device, paper)
  SELECT j.id, a.quiz_id, a.edition_id, a.student_id, j.number + 100, a.window_id, a.state, a.started_at, a.deadline, a.on_time_until, a.hard_stop, 1, a.device, a.paper
  FROM attempt a JOIN JSON_TABLE(?, '$[*]' COLUMNS (number FOR ORDINALITY, id VARCHAR(40) PATH '$')) j WHERE a.id = ?`,
  [JSON.stringify(attempts), source],
)
await db.run(
  'INSERT INTO answer (attempt_id, item, page) SELECT a.id, w.item, w.page FROM attempt a JOIN answer w ON w.attempt_id = ? WHERE a.id IN (?)',
  [source, attempts],
)
const item = paper.items[0]!
const response = { chosen: [item.options[0]!.id] }
let seq = 0

/** Runs 50 at once for some seconds. @returns how many a second */
async function rate(seconds: number, save: (attempt: string, seq: number) => Promise<void>): Promise<number> {
  const until = performance.now() + seconds * 1000
  let done = 0
  const began = performance.now()
  await Promise.all(
    attempts.map(async (attempt) => {
      while (performance.now() < until) {
        await save(attempt, ++seq)
        done++
      }
    }),
  )
  return done / ((performance.now() - began) / 1000)
}

const direct = (attempt: string, at: number) =>
  db
    .runPrepared(saveStatement, [
      JSON.stringify(response),
      0,
      toSql(iso(Date.now())),
      at,
      attempt,
      student,
      toSql(iso(Date.now())),
      1,
      toSql(iso(Date.now())),
      item.id,
      at,
    ])
    .then((changed) => {
      if (changed !== 2) throw new Error('The statement did not save.')
    })

const server = await startServer(url)
const signIn = await fetch(`${server.address}/api/session/demo`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ person: student }),
})
const cookie = signIn.headers
  .getSetCookie()
  .map((each) => each.split(';')[0])
  .join('; ')
const { hostname, port } = new URL(server.address)

/** A connection kept open, as a browser keeps one. Written straight to the socket, so that the load costs little itself. */
class Line {
  private text = ''
  private done: (body: string) => void = () => {}
  private readonly socket: Socket = connect(Number(port), hostname)

  constructor() {
    this.socket.setNoDelay(true)
    this.socket.on('data', (part: Buffer) => {
      this.text += part.toString('latin1')
      const end = this.text.indexOf('\r\n\r\n')
      const length = Number(/content-length: (\d+)/i.exec(this.text)?.[1])
      if (end < 0 || this.text.length < end + 4 + length) return
      const reply = this.text
      this.text = ''
      this.done(reply)
    })
  }

  post(path: string, body: string): Promise<string> {
    return new Promise((done) => {
      this.done = done
      this.socket.write(
        `POST ${path} HTTP/1.1\r\nhost: ${hostname}:${port}\r\norigin: ${server.address}\r\ncookie: ${cookie}\r\ncontent-type: application/json\r\ncontent-length: ${Buffer.byteLength(body)}\r\n\r\n${body}`,
      )
    })
  }
}

const lines = new Map(attempts.map((attempt) => [attempt, new Line()]))
async function routed(attempt: string, at: number): Promise<void> {
  const reply = await lines
    .get(attempt)!
    .post(
      `/api/sittings/${attempt}/answers`,
      JSON.stringify({ lease: 1, answers: [{ item: item.id, response, flagged: false, seq: at }] }),
    )
  if (!reply.startsWith('HTTP/1.1 200') || !reply.includes(`"kept":["${item.id}"]`)) throw new Error(reply)
}

await rate(1, direct)
await rate(2, routed)
const rounds: [number, number][] = []
for (let i = 0; i < 3; i++) rounds.push([await rate(3, direct), await rate(3, routed)])
const [straight, through] = [0, 1].map((side) => rounds.map((round) => round[side]!).sort((a, b) => a - b)[1]!) as [
  number,
  number,
]
await server.stop()
await db.close()
console.log(
  JSON.stringify({
    'answer.save.direct': { value: Math.round(straight), unit: 'saves/s' },
    'answer.save.route': { value: Math.round(through), unit: 'saves/s' },
    'answer.save.ratio': { value: Number((through / straight).toFixed(3)), unit: 'ratio' },
  }),
)
process.exit(0)
