import { DateTime } from 'luxon'
import { iso, minute, ms, type Instant } from '../kit/time'

/** A scale on which hours that matter are wide and days in which nothing happens are narrow. */
export interface DayScale {
  /** Place of an instant, 0 to 1; instants outside lie at the ends. */
  at(instant: Instant): number
  /** Beginnings of days, for the eye. */
  ticks: { at: number; label: string }[]
}

/** The weight of a gap between two events grows with its logarithm: a quarter of an hour and a week both have room. */
const weight = (gap: number) => Math.log2(1 + gap / (15 * minute))

/**
 * A piecewise linear scale through the instants at which something happens.
 * @param instants what has to be told apart; at least one
 * @param zone IANA zone, for the beginnings of days
 */
export function dayScale(instants: readonly Instant[], zone: string): DayScale {
  const events = [...new Set(instants)].sort()
  const knots = events.map(ms)
  const places = [0]
  for (let i = 1; i < knots.length; i++) places.push(places[i - 1]! + weight(knots[i]! - knots[i - 1]!))
  const total = places.at(-1)! || 1
  const at = (instant: Instant): number => {
    const t = ms(instant)
    const next = knots.findIndex((knot) => knot >= t)
    if (next === 0) return 0
    if (next < 0) return 1
    const share = (t - knots[next - 1]!) / (knots[next]! - knots[next - 1]!)
    return (places[next - 1]! + share * (places[next]! - places[next - 1]!)) / total
  }
  return { at, ticks: ticksOf(events, zone, at) }
}

/** Days, as many as there is room for: labels lie at least a tenth of the line apart. */
function ticksOf(events: Instant[], zone: string, at: (instant: Instant) => number): DayScale['ticks'] {
  const last = ms(events.at(-1)!)
  const ticks: DayScale['ticks'] = []
  let start = DateTime.fromISO(events[0]!, { zone }).startOf('day').plus({ days: 1 })
  for (let days = 0; start.toMillis() <= last && days < 400; days++, start = start.plus({ days: 1 })) {
    const place = at(iso(start.toMillis()))
    if (place - (ticks.at(-1)?.at ?? 0) >= 0.1) ticks.push({ at: place, label: start.toFormat('ccc d LLL') })
  }
  return ticks
}
