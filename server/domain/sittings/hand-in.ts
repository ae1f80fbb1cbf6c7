import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import { Problem } from '../problem'
import { loadAttempt } from './attempts'
import { endSitting } from './end'
import { ownAttempt } from './sitting'

/** Hands a paper in. Doing it twice is one handing in: the second is told when the first was. */
export async function handIn(
  database: Database,
  student: string,
  id: string,
  lease: number,
  now: Instant,
): Promise<{ handedInAt: Instant | null; state: string }> {
  const attempt = await ownAttempt(database, student, id, now)
  if (attempt.state === 'open' && attempt.lease !== lease)
    throw new Problem(
      409,
      'lease',
      'This paper is being written on another device. Take it back here first, then hand it in.',
    )
  if (attempt.state === 'open') await endSitting(database, id, { by: 'student', lease }, now)
  const ended = await loadAttempt(database, id)
  if (ended.state === 'open')
    throw new Problem(
      409,
      'lease',
      'This paper is being written on another device. Take it back here first, then hand it in.',
    )
  return { handedInAt: ended.handedInAt, state: ended.state }
}
