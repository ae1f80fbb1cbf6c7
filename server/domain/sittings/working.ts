import { z } from 'zod'
import type { AnswerRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { authoredAnswer, checkVerdict, closesAfter } from '../../../core/marking'
import { questionOnPaper } from '../../../core/paper'
import { scoreAnswer } from '../../../core/question'
import { same } from '../../../core/quiz/edits/paths'
import { toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { readResponse } from '../../documents/read'
import { Problem } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { loadQuiz } from '../quizzes/quizzes'
import { hintsOn } from '../reviews/paper-view'
import { loadAttempt, loadPaper, type Attempt } from './attempts'
import { helpFor, type ItemHelp } from './help'
import { answerSave, keepAnswers, sortAnswers, type AnswerSave, type Kept } from './save'
import { ownAttempt } from './own-attempt'

/** An answer to be checked, as the page has it: it is kept first. */
export const checkRequest = z.strictObject({ lease: z.int().min(1), answer: answerSave })
/** The hint that is asked for, from 1: asked twice it is given once. */
export const hintRequest = z.strictObject({
  lease: z.int().min(1),
  item: answerSave.shape.item,
  number: z.int().min(1).max(5),
})

export interface Helping {
  now: Instant
  help: ItemHelp
  /** What became of the answer that came with it. */
  saved: Kept
}

const nothing: Kept = { kept: [], refused: [] }

type Row = Pick<AnswerRow, 'response' | 'checks' | 'hints' | 'settled'>
/** The answer's row, held until the transaction ends. */
async function rowOf(db: Db, attempt: string, item: string): Promise<Row> {
  const row = await db.one<Row>(
    'SELECT response, checks, hints, settled FROM answer WHERE attempt_id = ? AND item = ? FOR UPDATE',
    [attempt, item],
  )
  if (!row) throw new Problem(422, 'item', 'There is no such question on this paper.')
  return row
}

async function helpOf(db: Db, attempt: Attempt, item: string): Promise<ItemHelp> {
  const { quiz } = await loadQuiz(db, attempt.quiz)
  const [paper, edition] = [await loadPaper(db, attempt.id), await loadEdition(db, attempt.edition)]
  return (await helpFor(db, attempt, quiz.rules, paper, edition))!.items[item]!
}

/**
 * Keeps an answer and tells whether it is right, where the rules let students check while they work (semantics §6). The same
 * answer checked again is the same check: it costs nothing more.
 * @throws Problem 409 where the answer was not taken, or the question is closed; 422 where there is nothing to check
 */
export async function checkAnswer(
  database: Database,
  student: string,
  id: string,
  lease: number,
  answer: AnswerSave,
  now: Instant,
): Promise<Helping> {
  const attempt = await ownAttempt(database, student, id, now)
  const { quiz } = await loadQuiz(database, attempt.quiz)
  const rule = quiz.rules.working
  if (!rule.check || quiz.rules.counts === 'survey')
    throw new Problem(422, 'check', 'Answers of this quiz are not checked while you work.')
  const sorted = await sortAnswers(database, student, id, [answer])
  const [wrong] = sorted.invalid
  if (wrong) throw new Problem(422, 'invalid', wrong.sentence)
  const [paper, edition] = [await loadPaper(database, id), await loadEdition(database, attempt.edition)]
  const place = paper.items.find((each) => each.id === answer.item)!
  const saved = await database.transaction(async (db) => {
    const kept = await keepAnswers(db, { student, attempt: id, lease, now }, sorted)
    const row = await rowOf(db, id, answer.item)
    // What was refused was told by its reason; a check that is sent again finds the question closed by itself.
    if (!kept.kept.length && !(row.settled && same(readResponse(row.response), answer.response))) return kept
    const response = readResponse(row.response)
    if (response === null) throw new Problem(422, 'check', 'Answer the question first.')
    const question = questionOnPaper(edition, place, null)
    const { fraction } = scoreAnswer(question, {}, authoredAnswer(question, place, response))
    if (fraction === null) throw new Problem(422, 'check', 'Nobody can check this one at once: a person looks at it.')
    const last = await db.one<{ response: string }>(
      'SELECT response FROM answer_check WHERE attempt_id = ? AND item = ? ORDER BY number DESC LIMIT 1',
      [id, answer.item],
    )
    if (row.settled || (last && same(readResponse(last.response), response))) return kept
    const checks = row.checks + 1
    await db.run(
      'INSERT INTO answer_check (attempt_id, item, number, response, fraction, checked_at) VALUES (?, ?, ?, ?, ?, ?)',
      [id, answer.item, checks, toJson(response), fraction, toSql(now)],
    )
    const settled = closesAfter(rule, checkVerdict(fraction), checks)
    // What closes a question is taken by the guarded save: nothing is after this instant.
    await db.run(
      `UPDATE answer SET checks = ?, settled = ?${settled ? ', stops_at = ?' : ''} WHERE attempt_id = ? AND item = ?`,
      [checks, settled ? 1 : 0, ...(settled ? [toSql(beforeNow(now))] : []), id, answer.item],
    )
    return kept
  })
  const after = await loadAttempt(database, id)
  const refused = saved.refused[0]
  const settledAlready = refused?.reason === 'settled'
  if (refused && !settledAlready)
    throw new Problem(
      409,
      refused.reason === 'lease' ? 'lease' : refused.reason === 'ended' ? 'ended' : 'not-kept',
      {
        lease: 'This paper is being written on another device. Take it back here first.',
        ended: 'This paper has been handed in.',
      }[refused.reason as string] ?? 'This answer came too late to be checked.',
      { saved },
    )
  return { now, saved, help: await helpOf(database, after, answer.item) }
}

/** The last instant before this one that the database can tell from it. */
const beforeNow = (now: Instant): Instant => new Date(Date.parse(now) - 1).toISOString()

/**
 * Gives a hint of a question, where the rules have hints given on asking. A hint that was given is given again.
 * @throws Problem 409 where the paper is on another device or handed in; 422 where there is no such hint
 */
export async function giveHint(
  database: Database,
  student: string,
  id: string,
  { lease, item, number }: z.infer<typeof hintRequest>,
  now: Instant,
): Promise<Helping> {
  const attempt = await ownAttempt(database, student, id, now)
  const { quiz } = await loadQuiz(database, attempt.quiz)
  if (!quiz.rules.working.hints || quiz.rules.counts === 'survey')
    throw new Problem(422, 'hint', 'Hints are not given in this quiz.')
  const [paper, edition] = [await loadPaper(database, id), await loadEdition(database, attempt.edition)]
  const place = paper.items.find((each) => each.id === item)
  if (!place) throw new Problem(422, 'item', 'There is no such question on this paper.')
  const hints = hintsOn(edition, place, attempt.language)
  if (number > hints.length) throw new Problem(422, 'hint', 'There is no further hint for this question.')
  await database.transaction(async (db) => {
    // The guard of a save: the sitting is under way here, and the question can still be answered.
    const held = await db.run(
      "UPDATE attempt a JOIN answer w ON w.attempt_id = a.id SET a.touched = a.touched + 1 WHERE a.id = ? AND a.state = 'open' AND a.hard_stop >= ? AND a.lease = ? AND w.item = ? AND w.page >= a.page AND w.stops_at >= ?",
      [id, toSql(now), lease, item, toSql(now)],
    )
    const row = await rowOf(db, id, item)
    if (number <= row.hints) return
    if (number > row.hints + 1) throw new Problem(422, 'hint', 'Hints are given one after another.')
    if (!held) {
      const { state, lease: current } = await loadAttempt(db, id)
      throw state !== 'open'
        ? new Problem(409, 'ended', 'This paper has been handed in.', { attempt: id })
        : current === lease
          ? new Problem(409, 'not-kept', 'This question is closed: a hint would not help any more.')
          : new Problem(409, 'lease', 'This paper is being written on another device. Take it back here first.')
    }
    await db.run('UPDATE answer SET hints = ? WHERE attempt_id = ? AND item = ?', [number, id, item])
  })
  return { now, saved: nothing, help: await helpOf(database, await loadAttempt(database, id), item) }
}
