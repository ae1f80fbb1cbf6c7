/** Saves, hand-ins and the sweep race from five processes on the same sittings. */
import { fork } from 'node:child_process'
import { join } from 'node:path'
import { expect } from 'vitest'
import { newRow } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { newId } from '../../server/domain/ids'
import { loadPaper } from '../../server/domain/sittings/attempts'
import { startSitting } from '../../server/domain/sittings/start'
import { person } from './database'
import { day, openedQuiz } from './quiz'

interface Told {
  acknowledged: { attempt: string; item: string; seq: number; text: string }[]
  ended: number
}
const nell = 'p-nell-ashdown'

function run(urls: string, role: string, number: number, tasks: unknown): Promise<Told> {
  const child = fork(
    join(import.meta.dirname, 'race-worker.ts'),
    [urls, role, String(number), nell, JSON.stringify(tasks)],
    { execArgv: ['--import', 'tsx'] },
  )
  return new Promise((done, failed) => {
    let told: Told | undefined
    child.on('message', (message) => {
      told = message as Told
    })
    child.on('exit', (code) => (told && code === 0 ? done(told) : failed(new Error(`${role} ended with ${code}`))))
  })
}

/**
 * The race, and the look-up of every answer that was acknowledged in it.
 * @param db with the demo school of `day`; it outlives whatever is done meanwhile
 * @param urls the nodes of its cluster, or the one server that there is; each process begins with another
 * @param meanwhile what is done on the way
 * @returns what it came to, in a sentence
 */
export async function race(
  db: Database,
  urls: readonly string[],
  rounds: number,
  meanwhile: (db: Database, attempts: readonly string[]) => Promise<void> = () => Promise.resolve(),
): Promise<string> {
  const urlsFrom = (i: number) => [...urls.slice(i % urls.length), ...urls.slice(0, i % urls.length)].join(' ')
  const rows = ['q-cover', 'q-depth', 'q-range-value', 'q-anchor'].map((question) =>
    newRow({ type: 'question', id: `r-${question}`, question, points: 1 }),
  )
  const quiz = await openedQuiz(db, 'race', {}, {}, rows)
  const { attempt: first } = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, day)
  const paper = await loadPaper(db, first)
  const items = paper.items.map((item) => item.id)
  const attempts = [first, ...Array.from({ length: rounds - 1 }, () => newId())]
  await db.run(
    `INSERT INTO attempt (id, quiz_id, edition_id, student_id, number, window_id, state, started_at, deadline, on_time_until, hard_stop, lease, device, paper)
    SELECT j.id, a.quiz_id, a.edition_id, a.student_id, j.number + 1, a.window_id, a.state, a.started_at, a.deadline, a.on_time_until, a.hard_stop, 1, a.device, a.paper
    FROM attempt a JOIN JSON_TABLE(?, '$[*]' COLUMNS (number FOR ORDINALITY, id VARCHAR(40) PATH '$')) j WHERE a.id = ?`,
    [JSON.stringify(attempts.slice(1)), first],
  )
  await db.run(
    'INSERT INTO answer (attempt_id, item, page) SELECT a.id, w.item, w.page FROM attempt a JOIN answer w ON w.attempt_id = ? WHERE a.id <> ?',
    [first, first],
  )

  const tasks = attempts.map((attempt) => ({ attempt, items }))
  const roles = [
    ['save', 0],
    ['save', 1],
    ['hand', 0],
    ['hand', 1],
    ['sweep', 0],
  ] as const
  const [told] = await Promise.all([
    Promise.all(roles.map(([role, number], i) => run(urlsFrom(i), role, number, tasks))),
    meanwhile(db, attempts),
  ])

  // Each sitting ended once, whoever won; where a node died, its end may have been heard of by nobody.
  const heardOf = told.reduce((total, each) => total + each.ended, 0)
  if (urls.length === 1) expect(heardOf).toBe(rounds)
  else expect(heardOf).toBeLessThanOrEqual(rounds)
  const ends = await db.rows<{ n: number }>(
    "SELECT COUNT(*) AS n FROM record WHERE subject IN (?) AND what IN ('handed in', 'left unsent') GROUP BY subject",
    [attempts],
  )
  expect(ends.map(({ n }) => Number(n))).toEqual(Array(rounds).fill(1))
  const newest = new Map<string, Told['acknowledged'][number]>()
  for (const each of told.flatMap(({ acknowledged }) => acknowledged)) {
    const before = newest.get(`${each.attempt} ${each.item}`)
    if (!before || before.seq < each.seq) newest.set(`${each.attempt} ${each.item}`, each)
  }
  const marks = await db.rows<{
    attempt_id: string
    item: string
    answered: number
    fraction: string
    question_id: string
  }>('SELECT attempt_id, item, question_id, answered, fraction FROM mark WHERE attempt_id IN (?)', [attempts])
  const kept = await db.rows<{ attempt_id: string; item: string; response: string | null; seq: number }>(
    'SELECT attempt_id, item, response, seq FROM answer WHERE attempt_id IN (?)',
    [attempts],
  )
  const markOf = new Map(marks.map((mark) => [`${mark.attempt_id} ${mark.item}`, mark]))
  const keptOf = new Map(kept.map((answer) => [`${answer.attempt_id} ${answer.item}`, answer]))
  expect(marks).toHaveLength(rounds * 4)
  let interrupted = 0
  for (const [place, answer] of newest) {
    const mark = markOf.get(place)!
    expect(keptOf.get(place)).toMatchObject({ seq: answer.seq, response: JSON.stringify({ text: answer.text }) })
    expect(mark.answered).toBe(1)
    // 2.3 is the key of one of the four: its mark tells which of the two texts was marked.
    if (mark.question_id === 'q-cover') expect(mark.fraction).toBe(answer.text === '2.3' ? '1' : '0')
    if (answer.seq < 6) interrupted++
  }
  // What was never acknowledged was not marked either; and the race was a race.
  for (const [place, mark] of markOf) if (!newest.has(place)) expect(mark.answered).toBe(0)
  expect(interrupted).toBeGreaterThan(rounds / 10)
  return `race: ${newest.size} acknowledged answers, ${interrupted} of them cut short by the end of their sitting`
}
