/**
 * What a rehearsal shows at an instant is byte for byte what the student's own session gets then: 200 pairs of student and
 * instant, under random rules, over HTTP on the built server whose clock the test sets. The student really sits; the
 * rehearsal does the same at the same instants, on its stage.
 */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { seededRandom } from '../../core/kit/random'
import { minute, ms, plus, type Instant } from '../../core/kit/time'
import { newRow, usualRules, type Rules } from '../../core/quiz'
import { fromSql } from '../../server/database/codec'
import { blankWindow } from '../../core/rules/windows'
import type { Database } from '../../server/database/database'
import type { Act } from '../../server/rehearsal/schema'
import { freshDatabase } from '../support/database'
import { day, openedQuiz, threeRows } from '../support/quiz'
import { Caller, startServer, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let maren: Caller
const base = day
beforeAll(async () => {
  const fresh = await freshDatabase('parity', base)
  db = fresh.db
  server = await startServer(fresh.url)
  setTime(base)
  maren = await new Caller(server.address).as('p-maren')
})
afterAll(async () => {
  await server.stop()
  await db.close()
})

const quizzes = 20
const instants = 10
const { below } = seededRandom('2aed', ['parity'])
const oneOf = <T>(...all: readonly T[]): T => all[below(all.length)]!
/** An instant of the server's clock; it runs on from there. */
const setTime = (at: Instant) => server.setClock(ms(at) - Date.now())

function randomRules(): Partial<Rules> {
  const opens = plus(base, 60 * minute)
  const closes = plus(opens, oneOf(30, 120, 240) * minute)
  const never = { at: 'never' as const }
  const moment = () =>
    oneOf<Rules['release']['key']['from']>(
      never,
      { at: 'handIn', offset: oneOf(0, 30) },
      { at: 'marked', offset: 0 },
      { at: 'attemptsUsed', offset: 0 },
      { at: 'windowClosed', offset: 0 },
      { at: 'everyoneDone', offset: 15 },
      { at: 'instant', instant: plus(opens, below(400) * minute) },
    )
  return {
    windows: [
      blankWindow({
        id: 'w1',
        classes: ['c-tuesday', 'c-saturday'],
        opens,
        closes,
        due: oneOf(null, plus(opens, 25 * minute)),
        latestStart: oneOf(null, plus(opens, 20 * minute)),
      }),
    ],
    limit: oneOf(null, 20, 60),
    grace: oneOf(0, 5),
    atDeadline: oneOf('handIn', 'finish', 'unsent'),
    atClosing: oneOf('clock', 'window'),
    announced: oneOf(true, false),
    attempts: { ...usualRules.attempts, count: oneOf(1, 2, null) },
    working: { ...usualRules.working, check: oneOf(true, false) },
    release: Object.fromEntries(
      Object.entries(usualRules.release).map(([name, rule]) => [
        name,
        { ...rule, from: moment(), once: oneOf(false, false, true), ifPassed: oneOf(false, false, true) },
      ]),
    ) as Rules['release'],
  }
}

interface Sitting {
  real: string
  staged: string
  lease: number
  items: { id: string; options: string[] }[]
}

it('is the same byte for byte', async () => {
  let compared = 0
  let reviewed = 0
  for (let n = 0; n < quizzes; n++) {
    const quiz = `parity-${n}`
    const pool = newRow({
      type: 'pool',
      id: 'pool',
      questions: ['q-fire', 'q-gas', 'q-flare', 'q-lifejacket', 'q-lee-shore'],
      draw: 2,
      points: 2,
    })
    await openedQuiz(db, quiz, randomRules(), { shuffleOptions: true }, [...threeRows, pool])
    // The answers of the demo's two with accommodations count twice as often as those of others.
    const student = oneOf('p-nell-ashdown', 'p-petra-lund', 'p-silas-penn', 'p-petra-lund', 'p-amos-lidell')
    setTime(base)
    const them = await new Caller(server.address).as(student)
    const acts: Act[] = []
    const sittings: Sitting[] = []
    let lastLook: Instant | null = null
    const rehearse = async (at: Instant, ask: Omit<Act, 'at'>) => {
      const reply = await maren.call('POST', `/api/quizzes/${quiz}/rehearsal`, {
        rehearsal: { who: { student }, content: 'open', fresh: true, draw: 0, acts, at },
        ask,
      })
      expect(reply.status, JSON.stringify(reply.body)).toBe(200)
      return reply.body as unknown as { status: number; reply: Record<string, unknown> }
    }
    const staged = (text: string) => sittings.reduce((said, { real, staged: id }) => said.replaceAll(real, id), text)
    /** Asks both for the same; what the server tells of its own time is when the rehearsal is asked for. */
    const compare = async (path: string, keep = false) => {
      const real = await them.call('GET', `/api/${path}`)
      const told = (real.body as { now?: Instant }).now
      const at = told ?? lastLook!
      const request = { method: 'GET' as const, path: staged(path).split('?')[0]!, query: queryOf(path) }
      const { status, reply } = await rehearse(at, request)
      const mine =
        path === 'my/quizzes'
          ? { quizzes: (real.body as { quizzes: { id: string }[] }).quizzes.filter(({ id }) => id === quiz) }
          : real.body
      const theirs = path === 'my/quizzes' ? { quizzes: (reply as { quizzes: unknown[] }).quizzes } : reply
      expect({ path, status, said: withoutCode(JSON.stringify(theirs)) }).toEqual({
        path,
        status: real.status,
        said: withoutCode(staged(JSON.stringify(mine))),
      })
      if (keep && status === 200) acts.push({ ...request, at })
      return real
    }
    /** Does the same in both, at the instant at which the server took the real one. */
    const both = async (path: string, body: Record<string, unknown>) => {
      const real = await them.call('POST', `/api/${path}`, body)
      const at = await whenDone(real.body, lastLook!)
      const played = await rehearse(at, { method: 'POST', path: staged(path), query: {}, body })
      expect(played.status, `${path} ${JSON.stringify([real.body, played.reply])}`).toBe(real.status)
      if (real.status === 200) acts.push({ method: 'POST', path: staged(path), query: {}, body, at })
      return { real: real.body as Record<string, unknown>, played: played.reply, ok: real.status === 200 }
    }
    // Each in a stretch of its own: what is done at one has been done at the next. Each some seconds past the minute, and
    // more than the last: no clock of whole minutes that began at one runs out while another is asked for.
    const times = Array.from({ length: instants }, (_, i) => plus(base, (52 * i + below(50)) * minute + 5000 * (i + 1)))
    for (const at of times) {
      setTime(at)
      lastLook = at
      const before = await compare(`my/quizzes/${quiz}`)
      // A list tells the grade, which is noted as seen.
      if (below(2)) await compare('my/quizzes', true)
      const open = sittings.at(-1)
      if (open) {
        await compare(`sittings/${open.real}/clock?lease=${open.lease}`)
        const review = await compare(`reviews/${open.real}`, true)
        if (review.status === 200) reviewed++
      }
      compared++
      const may = (before.body as { may?: { may: boolean } }).may?.may
      if (may && below(3) > 0) {
        const { real, played, ok } = await both(`my/quizzes/${quiz}/start`, { device: 'd1' })
        if (!ok) continue
        const [id, stagedId] = [String(real.attempt), String(played.attempt)]
        sittings.push({ real: id, staged: stagedId, lease: 1, items: [] })
        const opened = await both(`sittings/${id}/open`, { device: 'd1' })
        const said = opened.real as unknown as { lease: number; sheet: { sections: { entries: Entry[] }[] } }
        expect(JSON.stringify(opened.played.sheet)).toBe(JSON.stringify(said.sheet))
        const items = said.sheet.sections.flatMap(({ entries }) =>
          entries.map((entry) => ({ id: entry.id, options: (entry.body.options ?? []).map((option) => option.id) })),
        )
        Object.assign(sittings.at(-1)!, { lease: said.lease, items })
        const answers = items.flatMap((item, i) =>
          item.options.length && below(3)
            ? [{ item: item.id, response: { chosen: [oneOf(...item.options)] }, flagged: false, seq: i + 1 }]
            : [],
        )
        if (answers.length) await both(`sittings/${id}/answers`, { lease: said.lease, answers })
        if (below(2)) await both(`sittings/${id}/hand-in`, { lease: said.lease, answers: [] })
      }
    }
  }
  expect(compared).toBe(quizzes * instants)
  // The hard cases are among them.
  expect(reviewed).toBeGreaterThan(30)
}, 480_000)

/** A receipt's code stands for the id of its paper, which each has of its own. */
const withoutCode = (said: string) => said.replace(/"code":"[0-9a-f]{12}"/, '"code":""')

/** When the server did something, as it says or keeps it. */
async function whenDone(said: Record<string, unknown>, otherwise: Instant): Promise<Instant> {
  const { now, clock, attempt, handedInAt } = said as {
    now?: Instant
    clock?: { now: Instant }
    attempt?: string
    handedInAt?: Instant
  }
  if (now ?? clock?.now ?? handedInAt) return (now ?? clock?.now ?? handedInAt)!
  const row = attempt
    ? await db.one<{ started_at: string }>('SELECT started_at FROM attempt WHERE id = ?', [attempt])
    : undefined
  return row ? fromSql(row.started_at) : otherwise
}

interface Entry {
  id: string
  body: { options?: { id: string }[] }
}
const queryOf = (path: string): Record<string, string> => Object.fromEntries(new URL(`http://x/${path}`).searchParams)
