import { minute, plus, type Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import { addMedia } from '../bank/material/media'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { ownAttempt } from './own-attempt'

/** How long a recording may be on its way after its sitting has ended. */
const onItsWay = 30 * minute

/** Keeps a recording for a sitting under way; only the student and teachers can hear it. */
export async function keepRecording(
  database: Database,
  person: Person,
  attemptId: string,
  bytes: Buffer,
  now: Instant,
): Promise<{ src: string }> {
  const attempt = await ownAttempt(database, person.id, attemptId, now)
  // One that was on its way when time was up is kept: the answer that names it is set aside.
  const wasOnItsWay = attempt.handedInAt !== null && now <= plus(attempt.handedInAt, onItsWay)
  if (attempt.state !== 'open' && !wasOnItsWay) throw new Problem(409, 'ended', 'This paper has been handed in.')
  const { src } = await addMedia(database, person, bytes, now, ['sound'], true)
  return { src }
}
