import { day, minute, ms, type Instant } from '../kit/time'

export interface Lateness {
  /** Days of 24 hours begun after the due time; 0 when it was in time. */
  daysLate: number
  /** Minutes begun after the deadline and its grace; 0 when it was on time. */
  minutesOver: number
}

/** How late an attempt came in (semantics §5: started days count). */
export function lateness(handedInAt: Instant, due: Instant | null, onTimeUntil: Instant | null): Lateness {
  const begun = (from: Instant | null, unit: number) =>
    from === null || handedInAt <= from ? 0 : Math.ceil((ms(handedInAt) - ms(from)) / unit)
  return { daysLate: begun(due, day), minutesOver: begun(onTimeUntil, minute) }
}
