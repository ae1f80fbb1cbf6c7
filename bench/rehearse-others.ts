/**
 * What others wait for while a quiz is rehearsed: the longest wait of real saves, starts and new quizzes during 20
 * rehearsals of 300 acts each, less the longest of the same number when nobody rehearses. Milliseconds.
 */
import { ms } from '../core/kit/time'
import { day, openedQuiz } from '../tests/support/quiz'
import { laidOut } from '../tests/support/database'
import { Caller, startServer } from '../tests/support/server'

const { db, url } = await laidOut(process.env.THISTLE_DATABASE_URL!, 'others', day)
const server = await startServer(url)
server.setClock(ms(day) - Date.now() + 60_000)
const quizzes = Array.from({ length: 60 }, (_, i) => `others-${i}`)
for (const id of quizzes) await openedQuiz(db, id)
const [rehearsed] = quizzes as [string]
const students = (
  await db.rows<{ id: string }>("SELECT person_id AS id FROM enrolment WHERE class_id = 'c-tuesday'")
).map(({ id }) => id)
const callers = await Promise.all(students.map((id) => new Caller(server.address).as(id)))
const maren = await new Caller(server.address).as('p-maren')

interface Opened {
  lease: number
  sheet: { sections: { entries: { items?: { id: string }[]; id?: string }[] }[] }
}
const ok = async (reply: ReturnType<Caller['call']>) => {
  const { status, body } = await reply
  if (status !== 200) throw new Error(`${status} ${JSON.stringify(body)}`)
  return body
}

/** A rehearsal of the first student with 300 acts: a start and saves of one answer. */
async function longRehearsal() {
  const at = (second: number) => new Date(ms(day) + 120_000 + second * 1000).toISOString()
  const acts: unknown[] = []
  const base = { who: { student: students[0] }, content: 'open', fresh: true, draw: 0 }
  const ask = async (second: number, path: string, body: unknown) => {
    const request = { method: 'POST', path, query: {}, body }
    const played = (await ok(
      maren.call('POST', `/api/quizzes/${rehearsed}/rehearsal`, {
        rehearsal: { ...base, acts, at: at(second) },
        ask: request,
      }),
    )) as { status: number; reply: unknown }
    if (played.status !== 200) throw new Error(JSON.stringify(played))
    acts.push({ ...request, at: at(second) })
    return played.reply
  }
  const { attempt } = (await ask(0, `my/quizzes/${rehearsed}/start`, { device: 'd1' })) as { attempt: string }
  const { lease } = (await ask(1, `sittings/${attempt}/open`, { device: 'd1' })) as Opened
  for (let seq = 1; acts.length < 300; seq++)
    acts.push({
      method: 'POST',
      path: `sittings/${attempt}/open`,
      query: {},
      body: { device: `d${seq % 2}` },
      at: at(2 + seq),
    })
  return {
    again: (second: number) =>
      ok(
        maren.call('POST', `/api/quizzes/${rehearsed}/rehearsal`, {
          rehearsal: { ...base, acts, at: at(400 + second) },
          ask: { method: 'GET', path: `sittings/${attempt}/clock`, query: { lease }, body: undefined },
        }),
      ),
  }
}

let started = 0
/** The longest of a round of real requests: a start with its page, two saves, a new quiz. @param going as long as it says */
async function longestWait(going: () => boolean, least: number): Promise<number> {
  let longest = 0
  const timed = async <T>(work: () => Promise<T>): Promise<T> => {
    const began = performance.now()
    const result = await work()
    longest = Math.max(longest, performance.now() - began)
    return result
  }
  for (let round = 0; round < least || going(); round++) {
    const place = started++
    const student = callers[place % callers.length]!
    const quiz = quizzes[Math.floor(place / callers.length)]
    if (!quiz) throw new Error('Too few quizzes for so many starts.')
    const { attempt } = (await timed(() =>
      ok(student.call('POST', `/api/my/quizzes/${quiz}/start`, { device: 'd1' })),
    )) as unknown as { attempt: string }
    const { lease } = (await ok(
      student.call('POST', `/api/sittings/${attempt}/open`, { device: 'd1' }),
    )) as unknown as Opened
    const [row] = await db.rows<{ item: string }>('SELECT item FROM answer WHERE attempt_id = ? LIMIT 1', [attempt])
    for (const seq of [1, 2])
      await timed(() =>
        ok(
          student.call('POST', `/api/sittings/${attempt}/answers`, {
            lease,
            answers: [{ item: row!.item, response: null, flagged: seq === 1, seq }],
          }),
        ),
      )
    await timed(() => ok(maren.call('POST', '/api/quizzes', { title: `Beside ${place}` })))
    await new Promise((done) => setTimeout(done, 30))
  }
  return longest
}

const { again } = await longRehearsal()
await again(0)
await longestWait(() => false, 5)
const idle = await longestWait(() => false, 40)
let left = 20
const rehearsing = Promise.all(
  [0, 1].map(async (lane) => {
    for (; left > 0;) {
      left--
      await again(left * 2 + lane)
    }
  }),
).then(() => (left = -1))
const busy = await longestWait(() => left >= 0, 40)
await rehearsing
await server.stop()
await db.close()
console.error(`idle ${idle.toFixed(0)} ms, beside rehearsals ${busy.toFixed(0)} ms`)
console.log(JSON.stringify({ 'rehearse.others': { value: Math.max(0, Math.round(busy - idle)), unit: 'ms' } }))
