import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import { notFound } from '../problem'
import { loadAttempt, type Attempt } from './attempts'
import { settle } from './end'

/**
 * What a statement asks of a sitting whose clock it changes; its values are the attempt and the instant. One that a
 * teacher has closed is over, also for a request whose instant lies before.
 */
export const underWay = "id = ? AND state = 'open' AND ended_by IS NULL AND hard_stop >= ?"

/** The attempt if it belongs to the student, with what time has done to it. */
export async function ownAttempt(database: Database, student: string, id: string, now: Instant): Promise<Attempt> {
  await settle(database, { attempt: id }, now)
  const attempt = await loadAttempt(database, id)
  if (attempt.student !== student) throw notFound('This paper')
  return attempt
}
