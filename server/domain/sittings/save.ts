import type { AnswerRow, AttemptRow } from '../../database/tables'
import { z } from 'zod'
import type { Instant } from '../../../core/kit/time'
import type { Paper } from '../../../core/paper'
import { kindOf } from '../../../core/question'
import { byKey } from '../../database/by-key'
import { fromSqlOrNever, toJson, toSql } from '../../database/codec'
import type { Database, Value } from '../../database/database'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { loadPaper } from './attempts'

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

export type Refusal = 'ended' | 'lease' | 'page' | 'stale'

export interface SaveReply {
  now: Instant
  kept: string[]
  refused: { item: string; reason: Refusal }[]
  hardStop: Instant | null
}

/** Refuses what is not an answer to that question: nothing of the batch is kept then. */
async function ensureAnswers(
  database: Database,
  attempt: string,
  paper: Paper,
  answers: readonly AnswerSave[],
): Promise<void> {
  const row = await loadEdition(database, paper.edition)
  for (const answer of answers) {
    const place = paper.items.find((each) => each.id === answer.item)
    if (!place)
      throw new Problem(422, 'item', 'There is no such question on this paper.', { item: answer.item, attempt })
    if (answer.response === null) continue
    const kind = kindOf(row.questions[place.question]!.question.kind)
    const read = kind.answer.safeParse(answer.response)
    if (!read.success)
      throw new Problem(422, 'answer', read.error.issues[0]?.message ?? 'This is not an answer to that question.', {
        item: answer.item,
      })
    const known = new Set(place.options.map((option) => option.id))
    const chosen = (answer.response as { chosen?: string[] }).chosen ?? []
    if (chosen.some((each) => !known.has(each)))
      throw new Problem(422, 'option', 'There is no such option on this paper.', { item: answer.item })
  }
}

const guard =
  "a.id = ? AND a.student_id = ? AND a.state = 'open' AND a.hard_stop >= ? AND a.lease = ? AND w.page >= a.page"

/** The save of one answer: the same guarded statement for all processes and nodes (architecture, Data). */
export const saveStatement = `UPDATE attempt a JOIN answer w ON w.attempt_id = a.id
  SET w.response = ?, w.flagged = ?, w.kept_at = ?, w.seq = ?, w.lease = a.lease, a.touched = a.touched + 1
  WHERE ${guard} AND w.item = ? AND (w.lease < a.lease OR w.seq < ?)`

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
      SET w.response = ${response.sql}, w.flagged = ${flagged.sql}, w.kept_at = ?, w.lease = a.lease, a.touched = a.touched + 1, w.seq = ${seq.sql}
      WHERE ${guard} AND w.item IN (?) AND (w.lease < a.lease OR w.seq < ${seq.sql})`,
    values: (attempt, student, lease, now) => [
      ...response.values,
      ...flagged.values,
      toSql(now),
      ...seq.values,
      attempt,
      student,
      toSql(now),
      lease,
      answers.map((answer) => answer.item),
      ...seq.values,
    ],
  }
}

/**
 * Keeps answers. What cannot be kept (too late, from an older lease, from a page left behind) is set aside for the
 * teacher and told; a stale save never overwrites a newer one. The reply does not depend on what is right.
 */
export async function saveAnswers(
  database: Database,
  student: string,
  attempt: string,
  lease: number,
  answers: readonly AnswerSave[],
  now: Instant,
): Promise<SaveReply> {
  const paper = await loadPaper(database, attempt)
  if (paper.student !== student) throw notFound('This paper')
  await ensureAnswers(database, attempt, paper, answers)
  if (new Set(answers.map((answer) => answer.item)).size < answers.length)
    throw new Problem(422, 'twice', 'Send each answer once.')
  const changed = await write(database, student, attempt, lease, answers, now)
  const all = { now, kept: answers.map((answer) => answer.item), refused: [], hardStop: null }
  return changed === answers.length + 1 ? all : sortOut(database, attempt, lease, answers, now)
}

async function write(
  database: Database,
  student: string,
  attempt: string,
  lease: number,
  answers: readonly AnswerSave[],
  now: Instant,
): Promise<number> {
  const [only] = answers
  if (answers.length === 1 && only) {
    return database.runPrepared(saveStatement, [
      only.response === null ? null : toJson(only.response),
      only.flagged ? 1 : 0,
      toSql(now),
      only.seq,
      attempt,
      student,
      toSql(now),
      lease,
      only.item,
      only.seq,
    ])
  }
  const { sql, values } = statementFor(answers)
  return database.transaction((db) => db.run(sql, values(attempt, student, lease, now)))
}

/** Reads what is there after a save that did not take everything, and says why. */
async function sortOut(
  database: Database,
  attempt: string,
  lease: number,
  answers: readonly AnswerSave[],
  now: Instant,
): Promise<SaveReply> {
  const rows = await database.rows<
    Pick<AnswerRow, 'item' | 'seq'> &
      Pick<AttemptRow, 'page' | 'lease' | 'state' | 'hard_stop'> & { answer_lease: number; answer_page: number }
  >(
    'SELECT w.item, w.lease AS answer_lease, w.seq, w.page AS answer_page, a.page, a.lease, a.state, a.hard_stop FROM attempt a JOIN answer w ON w.attempt_id = a.id WHERE a.id = ? AND w.item IN (?)',
    [attempt, answers.map((answer) => answer.item)],
  )
  const kept: string[] = []
  const refused: SaveReply['refused'] = []
  for (const answer of answers) {
    const row = rows.find((each) => each.item === answer.item)!
    // Only this very save counts as kept: one that a newer save has replaced is stale.
    if (row.answer_lease === lease && row.seq === answer.seq) kept.push(answer.item)
    else
      refused.push({
        item: answer.item,
        reason:
          row.lease !== lease
            ? 'lease'
            : row.answer_lease === lease && row.seq > answer.seq
              ? 'stale'
              : row.state !== 'open' || row.hard_stop < toSql(now)
                ? 'ended'
                : 'page',
      })
  }
  const aside = refused.filter(({ reason }) => reason !== 'stale')
  if (aside.length) {
    await database.run(
      'INSERT IGNORE INTO answer_aside (id, attempt_id, item, response, lease, seq, arrived_at, reason) VALUES ?',
      [
        aside.map(({ item, reason }) => {
          const answer = answers.find((each) => each.item === item)!
          return [
            newId(),
            attempt,
            item,
            answer.response === null ? null : toJson(answer.response),
            lease,
            answer.seq,
            toSql(now),
            reason,
          ]
        }),
      ],
    )
  }
  return { now, kept, refused, hardStop: fromSqlOrNever(rows[0]?.hard_stop ?? null) }
}
