import { z } from 'zod'
import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import { Problem } from '../problem'
import { loadAttempt } from './attempts'
import { endIn } from './end'
import { missingIn, requiredProblem } from './required'
import { answerSave, keepAnswers, sortAnswers, type AnswerSave, type Kept } from './save'
import { ownAttempt } from './own-attempt'

/** A paper being handed in, with all answers that the page has no word of yet. */
export const handInRequest = z.strictObject({
  lease: z.int().min(1),
  answers: z.array(answerSave).max(2000, 'A paper has at most 2,000 answers.').default([]),
})
/** A paper of long texts that was written without a connection comes in one piece. */
export const handInLimit = {
  most: 20_000_000,
  sentence: 'These answers are more than 20 MB. Send them one by one first.',
}

export interface HandedIn {
  handedInAt: Instant | null
  state: string
  /** What became of the answers that came with it. */
  saved: Kept
}

/**
 * Hands a paper in, with the last answers in the same transaction. Doing it twice is one handing in: the second is told
 * when the first was.
 */
export async function handIn(
  database: Database,
  student: string,
  id: string,
  lease: number,
  answers: readonly AnswerSave[],
  now: Instant,
): Promise<HandedIn> {
  await ownAttempt(database, student, id, now)
  const sorted = await sortAnswers(database, student, id, answers)
  let missing: number[] = []
  const saved = await database.transaction((db) =>
    keepAnswers(db, { student, attempt: id, lease, now }, sorted, async () => {
      missing = await missingIn(db, id, now)
      return missing.length ? false : endIn(db, id, { by: 'student', lease }, now)
    }),
  )
  const ended = await loadAttempt(database, id)
  // Its answers are kept all the same: only the handing in waits.
  if (ended.state === 'open' && ended.lease === lease && missing.length)
    throw requiredProblem(missing, 'before you hand in', { saved })
  if (ended.state === 'open')
    throw new Problem(
      409,
      'lease',
      'This paper is being written on another device. Take it back here first, then hand it in.',
      { saved },
    )
  return { handedInAt: ended.handedInAt, state: ended.state, saved }
}
