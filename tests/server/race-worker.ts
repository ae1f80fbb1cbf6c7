/**
 * One of several processes that race on the same sittings: it saves, hands in or sweeps, by its role, and writes what
 * was acknowledged to it. Started by race.test.ts with the database, its role, its number and the attempts as JSON.
 */
import { openDatabase } from '../../server/database/database'
import { endSitting, settle } from '../../server/domain/sittings/end'
import { saveAnswers } from '../../server/domain/sittings/save'
import { later } from '../support/quiz'

interface Task { attempt: string, items: string[] }
const [url, role, number, student, json, begins] = process.argv.slice(2) as [string, 'save' | 'hand' | 'sweep', string, string, string, string]
const tasks = JSON.parse(json) as Task[]
const db = openDatabase(url, 4)
const acknowledged: { attempt: string, item: string, seq: number, text: string }[] = []
let ended = 0

/** Each process has questions of its own, as a page has one queue; right and wrong answers alternate. */
async function save({ attempt, items }: Task) {
  const mine = items.filter((_, i) => i % 2 === Number(number))
  for (let seq = 1; seq <= 6; seq++) {
    const text = seq % 2 ? '2.3' : '9.9'
    const reply = await saveAnswers(db, student, attempt, 1, mine.map((item) => ({ item, response: { text }, flagged: false, seq })), later(10))
    for (const item of reply.kept) acknowledged.push({ attempt, item, seq, text })
    if (reply.refused.length) return
  }
}

/** All processes come to a sitting at the same moment, the ends a few milliseconds apart from round to round. */
const spread = { save: 0, hand: 5 + 2 * Number(number), sweep: 3 }[role]
async function turn(round: number) {
  const at = Number(begins) + round * 16 + (role === 'save' ? 0 : 4 + (round * spread) % 11)
  const wait = at - Date.now()
  if (wait > 0) await new Promise((done) => setTimeout(done, wait))
}

for (const [round, task] of tasks.entries()) {
  await turn(round)
  if (role === 'save') await save(task)
  if (role === 'hand') {
    if (await endSitting(db, task.attempt, { by: 'student', lease: 1 }, later(10))) ended++
  }
  if (role === 'sweep') ended += await settle(db, { attempt: task.attempt }, later(100))
}
await db.close()
process.send!({ acknowledged, ended })
