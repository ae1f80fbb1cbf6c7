import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import { notFound } from '../problem'
import { loadAttempt, type Attempt } from './attempts'
import { settle } from './end'

/** The attempt if it belongs to the student, with what time has done to it. */
export async function ownAttempt(database: Database, student: string, id: string, now: Instant): Promise<Attempt> {
  await settle(database, { attempt: id }, now)
  const attempt = await loadAttempt(database, id)
  if (attempt.student !== student) throw notFound('This paper')
  return attempt
}
