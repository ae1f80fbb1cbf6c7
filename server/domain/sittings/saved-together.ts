import { toJson, toSql } from '../../database/codec'
import type { Database } from '../../database/database'
import type { AnswerSave, Sender } from './save'
import { guard, keeps } from './save-statement'

/** Most saves in one statement: what is locked together stays little. */
const mostTogether = 25
/** Statements at work at once in a process; what comes meanwhile waits for the next. */
const mostAtWork = 2

interface Waiting {
  from: Sender
  answer: AnswerSave
  done: (kept: boolean) => void
  failed: (error: unknown) => void
}
interface Queue {
  waiting: Waiting[]
  atWork: number
}
const queues = new WeakMap<Database, Queue>()

const text = (length: number) => `VARCHAR(${length}) CHARACTER SET ascii COLLATE ascii_bin`
/** The guarded statement of save-statement.ts over the saves of several sittings, in the order of the list. */
const statement = `UPDATE JSON_TABLE(?, '$[*]' COLUMNS (
    attempt ${text(40)} PATH '$.attempt', student ${text(40)} PATH '$.student', lease INT PATH '$.lease', now DATETIME(3) PATH '$.now',
    item ${text(12)} PATH '$.item', seq INT PATH '$.seq', flagged TINYINT PATH '$.flagged', response LONGTEXT PATH '$.response')) j
  STRAIGHT_JOIN attempt a ON a.id = j.attempt STRAIGHT_JOIN answer w ON w.attempt_id = j.attempt AND w.item = j.item
  SET ${keeps({ response: 'j.response', flagged: 'j.flagged', now: 'j.now', seq: 'j.seq' })}
  WHERE ${guard({ attempt: 'j.attempt', student: 'j.student', now: 'j.now', lease: 'j.lease' })} AND (w.lease < a.lease OR w.seq < j.seq)`

const row = ({ from: { attempt, student, lease, now }, answer: { item, seq, flagged, response } }: Waiting) => ({
  attempt,
  student,
  lease,
  now: toSql(now),
  item,
  seq,
  flagged: flagged ? 1 : 0,
  response: response === null ? null : toJson(response),
})

/** Takes what goes into the next statement: one of each sitting, in the order of their ids, as everybody locks them. */
function nextOf(queue: Queue): Waiting[] {
  const taken = new Map<string, Waiting>()
  const left: Waiting[] = []
  for (const each of queue.waiting)
    if (taken.size < mostTogether && !taken.has(each.from.attempt)) taken.set(each.from.attempt, each)
    else left.push(each)
  queue.waiting = left
  return [...taken.values()].sort((a, b) => (a.from.attempt < b.from.attempt ? -1 : 1))
}

/** One statement after another, until nothing waits. */
async function work(database: Database, queue: Queue): Promise<void> {
  const saves = nextOf(queue)
  try {
    const changed = await database.runPrepared(statement, [JSON.stringify(saves.map(row))])
    // Each changes its answer and its sitting. Where one is refused nothing says which: each is looked at by itself.
    for (const { done } of saves) done(changed === 2 * saves.length)
  } catch (error) {
    for (const { failed } of saves) failed(error)
  }
  if (queue.waiting.length) void work(database, queue)
  else queue.atWork--
}

/**
 * Keeps one answer, in one statement with those that other sittings send at the same time: a class that writes at once
 * costs the database little more than one student.
 * @returns whether it was kept, newly; false also where that cannot be told: then it is kept or looked up by itself
 * @throws DatabaseAway
 */
export function savedTogether(database: Database, from: Sender, answer: AnswerSave): Promise<boolean> {
  const queue = queues.get(database) ?? { waiting: [], atWork: 0 }
  queues.set(database, queue)
  return new Promise((done, failed) => {
    queue.waiting.push({ from, answer, done, failed })
    if (queue.atWork >= mostAtWork) return
    queue.atWork++
    void work(database, queue)
  })
}
