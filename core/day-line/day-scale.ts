import { DateTime } from 'luxon'
import { iso, minute, ms, type Instant } from '../kit/time'

/** A scale on which hours that matter are wide and days in which nothing happens are narrow. */
export interface DayScale {
  /** Place of an instant, 0 to 1; instants outside lie at the ends. */
  at(instant: Instant): number
  /** The instant at a place, to the minute. */
  from(place: number): Instant
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
  const from = (place: number): Instant => {
    const wanted = Math.min(1, Math.max(0, place)) * total
    const next = Math.max(
      1,
      places.findIndex((each) => each >= wanted),
    )
    if (knots.length < 2) return events[0]!
    const share = (wanted - places[next - 1]!) / (places[next]! - places[next - 1]! || 1)
    return toMinute(knots[next - 1]! + share * (knots[next]! - knots[next - 1]!))
  }
  return { at, from, ticks: ticksOf(events, zone, at) }
}

const toMinute = (milliseconds: number): Instant => iso(Math.round(milliseconds / minute) * minute)

/** Steps of a line that is to scale, in minutes, with how a tick is written. */
const steps: [minutes: number, label: string][] = [
  [5, 'HH:mm'],
  [15, 'HH:mm'],
  [60, 'HH:mm'],
  [180, 'ccc HH:mm'],
  [720, 'ccc d HH:mm'],
  [1440, 'ccc d LLL'],
  [7 * 1440, 'ccc d LLL'],
  [30 * 1440, 'd LLL'],
]
const mostTicks = 10

/**
 * A scale on which every minute is as wide as another, from minutes to months.
 * @param from what lies before it is at 0
 * @param to later than `from`; what lies behind it is at 1
 */
export function trueScale(from: Instant, to: Instant, zone: string): DayScale {
  const [first, last] = [ms(from), ms(to)]
  const at = (instant: Instant): number => Math.min(1, Math.max(0, (ms(instant) - first) / (last - first)))
  const length = (last - first) / minute
  const [unit, label] = steps.find(([minutes]) => length / minutes <= mostTicks) ?? steps.at(-1)!
  // Ticks stand at round hours and days of the school's clock, also where that changes.
  const step = unit >= 30 * 1440 ? { months: 1 } : { days: Math.max(1, unit / 1440) }
  const perDay = Math.max(1, 1440 / unit)
  const ticks: DayScale['ticks'] = []
  for (
    let day = DateTime.fromISO(from, { zone }).startOf(unit >= 30 * 1440 ? 'month' : 'day');
    day.toMillis() <= last && ticks.length < 60;
    day = day.plus(step)
  )
    for (let i = 0; i < perDay; i++) {
      const tick = day.set({ hour: Math.floor((i * unit) / 60), minute: (i * unit) % 60 })
      if (tick.toMillis() >= first && tick.toMillis() <= last)
        ticks.push({ at: at(iso(tick.toMillis())), label: tick.toFormat(label) })
    }
  return { at, from: (place) => toMinute(first + Math.min(1, Math.max(0, place)) * (last - first)), ticks }
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
