import { afterAll, beforeAll, expect, it } from 'vitest'
import { iso, ms, type Instant } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { freshDatabase } from '../support/database'
import { day } from '../support/quiz'
import { Caller, startServer, type RunningServer } from '../support/server'
import { acts, manyStudents, moves, raceMoves, raceStarts } from '../support/start-race'

const processes = 5
const count = 60
let db: Database
let servers: RunningServer[]
let callers: Caller[]
let students: string[]
const offset = ms(day) - Date.now()
const now = (): Instant => iso(Date.now() + offset)

beforeAll(async () => {
  const fresh = await freshDatabase('start_race', day)
  db = fresh.db
  servers = await Promise.all(Array.from({ length: processes }, () => startServer(fresh.url)))
  for (const server of servers) server.setClock(offset)
  students = await manyStudents(db, count)
  callers = await Promise.all(students.map((id, i) => new Caller(servers[i % processes]!.address).as(id)))
}, 120_000)
afterAll(async () => {
  await Promise.all(servers.map((server) => server.stop()))
  await db.close()
})

it.each(acts.map((act) => [act.name, act] as const))(
  `${count} students start in ${processes} processes, and the teacher does this meanwhile: %s`,
  async (name, act) => {
    // Where the machine is busy the teacher may come after everybody: then they start more slowly.
    const met = { before: 0, after: 0 }
    for (const [round, spread] of [240, 240, 1000, 3000].entries()) {
      if (round > 1 && met.before && met.after) break
      const { before, after } = await raceStarts(
        { db, students, now },
        act,
        `race-${acts.indexOf(act)}-${round}`,
        async (_student, i, id) => {
          const { status } = await callers[i]!.call('POST', `/api/my/quizzes/${id}/start`, { device: 'd1' })
          expect([200, 404, 409], name).toContain(status)
          return status === 200
        },
        round % 2 ? 0.3 : 0.7,
        spread,
      )
      met.before += before
      met.after += after
    }
    // It was a race: some were there before, and some came after.
    expect(Math.min(met.before, met.after)).toBeGreaterThan(0)
  },
)

it.each(moves.map((move) => [move.name, move] as const))('students %s', async (_name, move) => {
  await raceMoves({ db, students: students.slice(0, 30), now }, move, `move-${moves.indexOf(move)}`, () => db)
})
