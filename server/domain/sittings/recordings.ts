import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import { addMedia } from '../bank/material/media'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { ownAttempt } from './sitting'

/** Keeps a recording for a sitting under way; only the student and teachers can hear it. */
export async function keepRecording(
  database: Database,
  person: Person,
  attemptId: string,
  bytes: Buffer,
  now: Instant,
): Promise<{ src: string }> {
  const attempt = await ownAttempt(database, person.id, attemptId, now)
  if (attempt.state !== 'open') throw new Problem(409, 'ended', 'This paper has been handed in.')
  const { src } = await addMedia(database, person, bytes, now, ['sound'], true)
  return { src }
}
