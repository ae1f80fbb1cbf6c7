/** The races of tests/server/start-race.test.ts on three Galera nodes. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { iso, ms } from '../../core/kit/time'
import { seedDemo } from '../../demo/seed'
import { openDatabase, patient, type Database } from '../../server/database/database'
import { migrate } from '../../server/database/migrate'
import { Problem } from '../../server/domain/problem'
import { startSitting } from '../../server/domain/sittings/start'
import { person } from '../support/database'
import { day } from '../support/quiz'
import { acts, manyStudents, moves, raceMoves, raceStarts } from '../support/start-race'
// @ts-expect-error -- the start scripts are plain JavaScript
import { startCluster } from '../../scripts/lib/cluster.mjs'

interface Node {
  url: string
  stop(): Promise<void>
}
const folder = mkdtempSync(join(tmpdir(), 'thistle-cluster-'))
let nodes: Node[]
let databases: Database[]
let students: string[]
const offset = ms(day) - Date.now()
const now = () => iso(Date.now() + offset)

beforeAll(async () => {
  nodes = await (startCluster as (folder: string) => Promise<Node[]>)(folder)
  databases = nodes.map(({ url }) => openDatabase(url, 20, patient))
  await migrate(databases[0]!)
  await seedDemo(databases[0]!, day)
  students = await manyStudents(databases[0]!, 60)
}, 600_000)
afterAll(async () => {
  await Promise.all(databases.map((db) => db.close().catch(() => {})))
  for (const node of nodes) await node.stop()
  rmSync(folder, { recursive: true, force: true })
})

it.each(acts.map((act) => [act.name, act] as const))(
  '60 students start on three nodes, and the teacher: %s',
  async (_name, act) => {
    let [before, after] = [0, 0]
    for (const at of [0.2, 0.6]) {
      const met = await raceStarts(
        { db: databases[0]!, students, now },
        act,
        `race-${acts.indexOf(act)}-${at * 100}`,
        async (student, i, quiz) => {
          const db = databases[i % databases.length]!
          try {
            await startSitting(db, await person(db, student), quiz, { device: 'd1' }, now())
            return true
          } catch (error) {
            if (error instanceof Problem && [404, 409].includes(error.status)) return false
            throw error
          }
        },
        at,
        // Nodes that meet take turns by trying again: they need time to pass each other.
        1500,
      )
      before += met.before
      after += met.after
    }
    expect(before).toBeGreaterThan(0)
    expect(after).toBeGreaterThan(0)
  },
)

it.each(moves.map((move) => [move.name, move] as const))('students on three nodes %s', async (_name, move) => {
  await raceMoves(
    { db: databases[0]!, students: students.slice(0, 30), now },
    move,
    `move-${moves.indexOf(move)}`,
    (i) => databases[i % databases.length]!,
  )
})
