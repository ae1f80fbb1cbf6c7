import type { Accommodation } from '../quiz/accommodation'
import { count, duration } from '../kit/phrases'

/** "time and a half": a factor as people say it. */
function factorWords(factor: number): string {
  const known: Record<number, string> = { 1.25: 'a quarter more time', 1.5: 'time and a half', 2: 'double time' }
  return known[factor] ?? `time × ${factor}`
}

/** What an accommodation gives, in a few words each; empty where it gives nothing. @param languageName names a language by its tag */
export function needWords(need: Accommodation, languageName: (tag: string) => string = (tag) => tag): string[] {
  return [
    ...(need.factor > 1 ? [factorWords(need.factor)] : []),
    ...(need.extraMinutes ? [`${count(need.extraMinutes, 'minute')} more`] : []),
    ...(need.stretchWindow && (need.factor > 1 || need.extraMinutes) ? ['also past the window'] : []),
    ...(need.breakMinutes ? [`${duration(need.breakMinutes)} of breaks`] : []),
    ...(need.moreAttempts ? [`${count(need.moreAttempts, 'attempt')} more`] : []),
    ...(need.laterMinutes ? [`windows end ${duration(need.laterMinutes)} later`] : []),
    ...(need.language ? [languageName(need.language)] : []),
    ...(need.largerType ? ['larger type'] : []),
  ]
}
