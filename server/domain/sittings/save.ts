import type { AnswerRow, AttemptRow } from '../../database/tables'
import { z } from 'zod'
import type { Instant } from '../../../core/kit/time'
import { kindOf, type Question } from '../../../core/question'
import { byKey } from '../../database/by-key'
import { inBatches } from '../../database/batches'
import { toJson, toSql } from '../../database/codec'
import type { Database, Db, Value } from '../../database/database'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { loadAttempt, loadPaper } from './attempts'
import { guard, keeps, saveStatement } from './save-statement'
import { savedTogether } from './saved-together'

const item = z.string().regex(/^[a-z0-9]{1,12}$/)

/** An answer as a page sends it. Null clears it. */
export const answerSave = z.strictObject({
  item,
  response: z.record(z.string(), z.unknown()).nullable(),
  flagged: z.boolean(),
  /** Grows with every change on the device that has the lease. */
  seq: z.int().min(1).max(2_000_000_000),
})
export const saveRequest = z.strictObject({
  lease: z.int().min(1),
  answers: z.array(answerSave).min(1).max(100, 'Send at most 100 answers at once.'),
})
export type AnswerSave = z.infer<typeof answerSave>

export type Refusal = 'ended' | 'lease' | 'page' | 'section' | 'settled' | 'stale' | 'invalid'

/** What became of answers that were sent. What was refused, for whatever reason, is set aside. */
export interface Kept {
  kept: string[]
  refused: { item: string; reason: Refusal; sentence?: string }[]
}
export interface SaveReply extends Kept {
  now: Instant
  hardStop: Instant | null
}

/** Answers sorted into those that are answers to their question, and those that are not with what is wrong. */
export interface Sorted {
  valid: AnswerSave[]
  invalid: { answer: AnswerSave; sentence: string }[]
}

/**
 * Looks whether answers are answers to their questions.
 * @throws Problem 404 for a paper of somebody else's; 422 for a question that is not on the paper, or one sent twice
 */
export async function sortAnswers(
  database: Database,
  student: string,
  attempt: string,
  answers: readonly AnswerSave[],
): Promise<Sorted> {
  const paper = await loadPaper(database, attempt)
  if (paper.student !== student) throw notFound('This paper')
  if (new Set(answers.map((answer) => answer.item)).size < answers.length)
    throw new Problem(422, 'twice', 'Send each answer once.')
  const { questions } = await loadEdition(database, paper.edition)
  const places = new Map(paper.items.map((place) => [place.id, place]))
  const sorted: Sorted = { valid: [], invalid: [] }
  for (const answer of answers) {
    const place = places.get(answer.item)
    if (!place)
      throw new Problem(422, 'item', 'There is no such question on this paper.', { item: answer.item, attempt })
    const sentence = faultOf(answer.response, questions[place.question]!.question, place.options)
    if (sentence === null) sorted.valid.push(answer)
    else sorted.invalid.push({ answer, sentence })
  }
  return sorted
}

/** What keeps a response from being an answer, in a sentence; null for nothing. */
function faultOf(response: AnswerSave['response'], { kind: name, body }: Question, options: readonly { id: string }[]) {
  if (response === null) return null
  const kind = kindOf(name)
  const read = kind.answer.safeParse(response)
  if (!read.success) return read.error.issues[0]?.message ?? 'This is not an answer to that question.'
  const known = new Set(options.map((option) => option.id))
  const { chosen = [] } = response as { chosen?: string[] }
  if (!chosen.every((each) => known.has(each))) return 'There is no such option on this paper.'
  return kind.excess?.(body, read.data) ?? null
}

/** Several answers (after a lost connection) in one such statement. */
function statementFor(answers: readonly AnswerSave[]): {
  sql: string
  values: (attempt: string, student: string, lease: number, now: Instant) => Value[]
} {
  const per = (pick: (answer: AnswerSave) => Value) =>
    byKey(
      'w.item',
      answers.map((answer) => [answer.item, pick(answer)] as const),
    )
  const response = per((answer) => (answer.response === null ? null : toJson(answer.response)))
  const flagged = per((answer) => answer.flagged)
  const seq = per((answer) => answer.seq)
  return {
    sql: `UPDATE attempt a JOIN answer w ON w.attempt_id = a.id
      SET ${keeps({ response: response.sql, flagged: flagged.sql, seq: seq.sql })}
      WHERE ${guard()} AND w.item IN (?) AND (w.lease < a.lease OR w.seq < ${seq.sql})`,
    values: (attempt, student, lease, now) => [
      ...response.values,
      ...flagged.values,
      toSql(now),
      ...seq.values,
      attempt,
      student,
      toSql(now),
      lease,
      toSql(now),
      answers.map((answer) => answer.item),
      ...seq.values,
    ],
  }
}

/** Who sends answers, under which lease, and when their request was whole. */
export interface Sender {
  student: string
  attempt: string
  lease: number
  now: Instant
}

/** Keeps answers of a sitting under way. The reply does not depend on what is right. */
export async function saveAnswers(
  database: Database,
  student: string,
  attempt: string,
  lease: number,
  answers: readonly AnswerSave[],
  now: Instant,
): Promise<SaveReply> {
  const sorted = await sortAnswers(database, student, attempt, answers)
  const from = { student, attempt, lease, now }
  const [only] = sorted.valid
  if (only && answers.length === 1 && (await savedTogether(database, from, only)))
    return { now, hardStop: null, kept: [only.item], refused: [] }
  const reply = await keepAnswers(database, from, sorted)
  if (!reply.refused.length) return { now, hardStop: null, ...reply }
  const { limits } = await loadAttempt(database, attempt)
  return { now, hardStop: limits.hardStop, ...reply }
}

/**
 * Keeps answers that have been looked at. What cannot be kept (too late, from an older lease, from a page left behind,
 * no answer to its question) is set aside for the teacher and told; a stale save never overwrites a newer one.
 * @param end ends the sitting in the same transaction: nothing is read before both have written
 */
export async function keepAnswers(
  db: Db,
  from: Sender,
  { valid, invalid }: Sorted,
  end: () => Promise<boolean> = () => Promise.resolve(false),
): Promise<Kept> {
  const changed = await write(db, from, valid)
  const endedHere = await end()
  if (changed && !invalid.length) return { kept: valid.map((answer) => answer.item), refused: [] }
  const { kept, refused } = await lookUp(db, from, valid, endedHere)
  const all = [
    ...refused,
    ...invalid.map(({ answer, sentence }) => ({ item: answer.item, reason: 'invalid' as const, sentence })),
  ]
  await setAside(db, from, [...valid, ...invalid.map(({ answer }) => answer)], all)
  return { kept, refused: all }
}

const mostInOne = 100

/** @returns whether all of them were kept, newly */
async function write(
  db: Db,
  { student, attempt, lease, now }: Sender,
  answers: readonly AnswerSave[],
): Promise<boolean> {
  const [only] = answers
  if (answers.length === 1 && only) {
    const changed = await db.runPrepared(saveStatement, [
      only.response === null ? null : toJson(only.response),
      only.flagged ? 1 : 0,
      toSql(now),
      only.seq,
      attempt,
      student,
      toSql(now),
      lease,
      toSql(now),
      only.item,
      only.seq,
    ])
    return changed === 2
  }
  let all = true
  await inBatches(answers, mostInOne, async (some) => {
    const { sql, values } = statementFor(some)
    all = (await db.run(sql, values(attempt, student, lease, now))) === some.length + 1 && all
  })
  return all
}

/** Reads what is there after a save that did not take everything, and says why. */
async function lookUp(db: Db, from: Sender, answers: readonly AnswerSave[], endedHere: boolean): Promise<Kept> {
  if (!answers.length) return { kept: [], refused: [] }
  const rows = await db.rows<
    Pick<AnswerRow, 'item' | 'seq' | 'stops_at' | 'settled'> &
      Pick<AttemptRow, 'lease' | 'state' | 'hard_stop'> & { answer_lease: number }
  >(
    'SELECT w.item, w.lease AS answer_lease, w.seq, w.stops_at, w.settled, a.lease, a.state, a.hard_stop FROM attempt a JOIN answer w ON w.attempt_id = a.id WHERE a.id = ? AND w.item IN (?)',
    [from.attempt, answers.map((answer) => answer.item)],
  )
  const found = new Map(rows.map((row) => [row.item, row]))
  const result: Kept = { kept: [], refused: [] }
  for (const { item, seq } of answers) {
    const row = found.get(item)!
    // Only this very save counts as kept: one that a newer save has replaced is stale.
    if (row.answer_lease === from.lease && row.seq === seq) result.kept.push(item)
    else result.refused.push({ item, reason: reasonOf(row, from, seq, endedHere) })
  }
  return result
}

function reasonOf(
  row: Pick<AnswerRow, 'seq' | 'stops_at' | 'settled'> &
    Pick<AttemptRow, 'lease' | 'state' | 'hard_stop'> & { answer_lease: number },
  { lease, now }: Sender,
  seq: number,
  endedHere: boolean,
): Refusal {
  if (row.lease !== lease) return 'lease'
  if (row.answer_lease === lease && row.seq > seq) return 'stale'
  if (endedHere) return 'page'
  if (row.state !== 'open' || (row.hard_stop !== null && row.hard_stop < toSql(now))) return 'ended'
  if (row.settled) return 'settled'
  return row.stops_at < toSql(now) ? 'section' : 'page'
}

/** Keeps beside the paper what was not taken into it; the same thing once, however often it is sent. */
async function setAside(
  db: Db,
  { attempt, lease, now }: Sender,
  answers: readonly AnswerSave[],
  refused: Kept['refused'],
): Promise<void> {
  if (!refused.length) return
  const sent = new Map(answers.map((answer) => [answer.item, answer]))
  await db.run(
    'INSERT IGNORE INTO answer_aside (id, attempt_id, item, response, lease, seq, arrived_at, reason) VALUES ?',
    [
      refused.map(({ item, reason }) => {
        const { response, seq } = sent.get(item)!
        return [newId(), attempt, item, response === null ? null : toJson(response), lease, seq, toSql(now), reason]
      }),
    ],
  )
}
