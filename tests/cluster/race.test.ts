/** The race of tests/server/race.test.ts on three Galera nodes, of which one is killed on the way; and their migration. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { seedDemo } from '../../demo/seed'
import { alone } from '../../server/database/alone'
import { openDatabase, patient, type Database } from '../../server/database/database'
import { migrate } from '../../server/database/migrate'
import { day } from '../support/quiz'
import { race } from '../support/race'
// @ts-expect-error -- the start scripts are plain JavaScript
import { startCluster } from '../../scripts/lib/cluster.mjs'

interface Node {
  url: string
  kill(): Promise<void>
  stop(): Promise<void>
}
const rounds = 300
const folder = mkdtempSync(join(tmpdir(), 'thistle-cluster-'))
let nodes: Node[]
let databases: Database[]

beforeAll(async () => {
  nodes = await (startCluster as (folder: string) => Promise<Node[]>)(folder)
  databases = nodes.map(({ url }) => openDatabase(url, 4, patient))
}, 300_000)
afterAll(async () => {
  await Promise.all(databases.map((db) => db.close().catch(() => {})))
  for (const node of nodes) await node.stop()
  rmSync(folder, { recursive: true, force: true })
})

it('is three nodes that are one', async () => {
  for (const db of databases)
    expect(await db.one("SHOW STATUS LIKE 'wsrep_cluster_size'")).toMatchObject({ Value: '3' })
})

it('migrates once, whichever node is asked', async () => {
  const ran = await Promise.all(databases.map((db) => migrate(db)))
  expect(ran.filter((names) => names.length > 0)).toHaveLength(1)
  let inside = 0
  await Promise.all(
    databases.map((db) =>
      alone(db, 'a turn', async () => {
        expect(++inside).toBe(1)
        await new Promise((done) => setTimeout(done, 100))
        inside--
      }),
    ),
  )
})

it(`races on ${rounds} sittings from five processes on different nodes, one of which is killed`, async () => {
  await seedDemo(databases[0]!, day)
  let killed = false
  const words = await race(
    databases[0]!,
    nodes.map(({ url }) => url),
    rounds,
    async (db, attempts) => {
      const third = attempts[Math.floor(rounds / 3)]!
      while ((await db.one<{ state: string }>('SELECT state FROM attempt WHERE id = ?', [third]))!.state === 'open')
        await new Promise((done) => setTimeout(done, 20))
      await nodes[2]!.kill()
      killed = true
    },
  )
  expect(killed).toBe(true)
  console.log(words)
})
