import { endAt, hasEnded, latest, type End, type Instant } from '../kit/time'
import type { Rules } from './schema'

/** What is stored; scheduled, open and closed follow from the windows (semantics §3). */
export type StoredState = 'draft' | 'published' | 'withdrawn' | 'filed'
export type QuizState = 'draft' | 'scheduled' | 'open' | 'closed' | 'withdrawn' | 'filed'

/**
 * The state of a quiz at an instant.
 * @param lastEnd the latest end over everybody assigned (with extra time)
 */
export function stateOf(stored: StoredState, rules: Pick<Rules, 'windows'>, lastEnd: End, now: Instant): QuizState {
  if (stored !== 'published') return stored
  const opens = rules.windows.map((window) => window.opens).sort()[0]
  if (!opens || now < opens) return 'scheduled'
  return hasEnded(latest([lastEnd, ...rules.windows.map((window) => endAt(window.closes))]), now) ? 'closed' : 'open'
}

const steps: Record<StoredState, StoredState[]> = {
  draft: ['published'],
  published: ['withdrawn', 'filed'],
  withdrawn: ['published', 'filed'],
  filed: ['published'],
}

/** Whether one stored state may follow another. */
export function mayBecome(from: StoredState, to: StoredState): boolean {
  return steps[from].includes(to)
}

export const stateLabels: Record<QuizState, string> = {
  draft: 'Draft',
  scheduled: 'Scheduled',
  open: 'Open',
  closed: 'Closed',
  withdrawn: 'Withdrawn',
  filed: 'Filed',
}
