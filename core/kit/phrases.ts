import { exact, fixed, type Exact } from './exact'
import type { Instant } from './time'

/** "Tue 24 Nov, 19:00" in a zone: times for people (interface, For everyone). Intl knows every zone, so that no page loads a date library for it. */
export function sentenceTime(at: Instant, zone: string): string {
  const parts = Object.fromEntries(
    new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    })
      .formatToParts(new Date(at))
      .map(({ type, value }) => [type, value]),
  )
  return `${parts.weekday} ${parts.day} ${parts.month}, ${parts.hour}:${parts.minute}`
}

/** "24 November 2027": a day that may be years off. */
export function longDate(at: Instant, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', { timeZone: zone, dateStyle: 'long' }).format(new Date(at))
}

/** "19:00". */
export function clockTime(at: Instant, zone: string, seconds = false): string {
  return new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    hour: '2-digit',
    minute: '2-digit',
    ...(seconds ? { second: '2-digit' } : {}),
    hourCycle: 'h23',
  }).format(new Date(at))
}

/** "45 minutes", "1 hour 30 minutes", "2 days". @param minutes 0 or more */
export function duration(minutes: number): string {
  const whole = Math.floor(minutes)
  const days = Math.floor(whole / 1440)
  const hours = Math.floor((whole % 1440) / 60)
  const rest = minutes - days * 1440 - hours * 60
  const word = (n: number, one: string) => (n ? [`${n} ${one}${n === 1 ? '' : 's'}`] : [])
  return [...word(days, 'day'), ...word(hours, 'hour'), ...word(rest, 'minute')].join(' ') || '0 minutes'
}

export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}

/** A share as "62 %" for people. */
export function percent(share: Exact | number, decimals = 0): string {
  return `${fixed(exact(share).mul(100), decimals)} %`
}

export function list(words: readonly string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`
}

/** About how long something takes: "75 s", "12 min". @param seconds 0 or more */
export function roughTime(seconds: number): string {
  return seconds < 100 ? `${fixed(exact(seconds), 0)} s` : `${fixed(exact(seconds).div(60), 0)} min`
}
