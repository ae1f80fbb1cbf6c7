/**
 * One of several processes that race on the same sittings: it saves, hands in or sweeps, by its role, and writes what
 * was acknowledged to it. Started by race.ts with its databases (the nodes of a cluster, its own first), its role, its
 * number and the attempts as JSON.
 */
import { DatabaseAway } from '../../server/database/away'
import { openDatabase } from '../../server/database/database'
import { endSitting, settle } from '../../server/domain/sittings/end'
import { saveAnswers } from '../../server/domain/sittings/save'
import { later } from './quiz'

interface Task {
  attempt: string
  items: string[]
}
const [urls, role, number, student, json] = process.argv.slice(2) as [
  string,
  'save' | 'hand' | 'sweep',
  string,
  string,
  string,
]
const tasks = JSON.parse(json) as Task[]
const nodes = urls.split(' ')
let db = openDatabase(nodes[0]!, 4)
const acknowledged: { attempt: string; item: string; seq: number; text: string }[] = []
let ended = 0

/** A node that has died is an application that cannot be reached: whoever asks goes to another, and asks again. */
async function asked<T>(work: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await work()
    } catch (error) {
      if (!(error instanceof DatabaseAway) || nodes.length < 2) throw error
      nodes.push(nodes.shift()!)
      void db.close().catch(() => {})
      db = openDatabase(nodes[0]!, 4)
    }
  }
}

/** Each process has questions of its own, as a page has one queue; right and wrong answers alternate. */
async function save({ attempt, items }: Task) {
  const mine = items.filter((_, i) => i % 2 === Number(number))
  for (let seq = 1; seq <= 6; seq++) {
    const text = seq % 2 ? '2.3' : '9.9'
    const answers = mine.map((item) => ({ item, response: { text }, flagged: false, seq }))
    const reply = await asked(() => saveAnswers(db, student, attempt, 1, answers, later(10)))
    for (const item of reply.kept) acknowledged.push({ attempt, item, seq, text })
    if (reply.refused.length) return
  }
}

/** Looks until it is so; gives up after a while, so that a fault shows as one and not as a standstill. */
async function until(isSo: () => Promise<boolean>): Promise<void> {
  const most = Date.now() + 5000
  while (Date.now() < most && !(await asked(isSo))) await new Promise((done) => setTimeout(done, 1))
}

/**
 * Who saves begins when the sitting before has ended; who ends begins when a few of the saves have come in, from round
 * to round another number of them. So they meet on every machine, however quick it is.
 */
async function turn(round: number) {
  const [before, here] = [tasks[round - 1]?.attempt, tasks[round]!.attempt]
  if (role === 'save')
    return until(
      async () =>
        !before || Boolean(await db.one("SELECT 1 AS yes FROM attempt WHERE id = ? AND state <> 'open'", [before])),
    )
  const wanted = 1 + ((round + (role === 'sweep' ? 2 : Number(number))) % 4)
  return until(async () =>
    Boolean(
      await db.one(
        "SELECT 1 AS yes FROM answer WHERE attempt_id = ? AND seq >= ? UNION ALL SELECT 1 FROM attempt WHERE id = ? AND state <> 'open' LIMIT 1",
        [here, wanted, here],
      ),
    ),
  )
}

for (const [round, task] of tasks.entries()) {
  await turn(round)
  if (role === 'save') await save(task)
  if (role === 'hand') {
    if (await asked(() => endSitting(db, task.attempt, { by: 'student', lease: 1 }, later(10)))) ended++
  }
  if (role === 'sweep') ended += await asked(() => settle(db, { attempt: task.attempt }, later(100)))
}
await db.close()
process.send!({ acknowledged, ended })
