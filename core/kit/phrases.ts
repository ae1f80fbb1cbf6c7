import { exact, fixed, type Exact } from './exact'
import type { Instant } from './time'

const formats = {
  sentence: { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', hourCycle: 'h23' },
  longDate: { dateStyle: 'long' },
  clock: { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' },
  clockWithSeconds: { hour: '2-digit', minute: '2-digit', second: '2-digit', hourCycle: 'h23' },
} satisfies Record<string, Intl.DateTimeFormatOptions>

/** Making one takes a hundred times as long as using it; there are as many as zones. */
const made = new Map<string, Intl.DateTimeFormat>()

function formatFor(name: keyof typeof formats, zone: string): Intl.DateTimeFormat {
  const key = `${name} ${zone}`
  const known = made.get(key)
  if (known) return known
  const format = new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...formats[name] })
  made.set(key, format)
  return format
}

/** The few instants of a school's quizzes are said to everybody. */
const said = new Map<string, string>()
const mostSaid = 2000

/** "Tue 24 Nov, 19:00" in a zone: times for people (interface, For everyone). Intl knows every zone, so that no page loads a date library for it. */
export function sentenceTime(at: Instant, zone: string): string {
  const key = `${at} ${zone}`
  const known = said.get(key)
  if (known !== undefined) return known
  const parts: Partial<Record<Intl.DateTimeFormatPartTypes, string>> = {}
  for (const { type, value } of formatFor('sentence', zone).formatToParts(new Date(at))) parts[type] = value
  const words = `${parts.weekday} ${parts.day} ${parts.month}, ${parts.hour}:${parts.minute}`
  if (said.size >= mostSaid) said.clear()
  said.set(key, words)
  return words
}

/** "24 November 2027": a day that may be years off. */
export function longDate(at: Instant, zone: string): string {
  return formatFor('longDate', zone).format(new Date(at))
}

/** "19:00". */
export function clockTime(at: Instant, zone: string, seconds = false): string {
  return formatFor(seconds ? 'clockWithSeconds' : 'clock', zone).format(new Date(at))
}

/**
 * "45 minutes", "1 hour 13 minutes 42 seconds", "2 days".
 * @param minutes 0 or more; a part of a minute is given in whole seconds
 */
export function duration(minutes: number): string {
  const seconds = Math.round(minutes * 60)
  const word = (n: number, one: string) => (n ? [count(n, one)] : [])
  return (
    [
      ...word(Math.floor(seconds / 86_400), 'day'),
      ...word(Math.floor((seconds % 86_400) / 3600), 'hour'),
      ...word(Math.floor((seconds % 3600) / 60), 'minute'),
      ...word(seconds % 60, 'second'),
    ].join(' ') || '0 minutes'
  )
}

export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}

/** A share as "62 %" for people. */
export function percent(share: Exact | number, decimals = 0): string {
  return `${fixed(exact(share).mul(100), decimals)} %`
}

/** A chance for people: "12 %", "0.4 %", "below 0.01 %"; never "0 %" for what can happen, nor "100 %" for what may not. */
export function chance(share: number): string {
  if (share <= 0) return '0 %'
  if (share < 0.0001) return 'below 0.01 %'
  if (share >= 1) return '100 %'
  if (share > 0.999) return 'over 99.9 %'
  return percent(Math.round(share * 1e6) / 1e6, share < 0.001 ? 2 : share < 0.1 || share > 0.9 ? 1 : 0)
}

export function list(words: readonly string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`
}

/** "A, B and 3 more": some names of many. @param most how many are said */
export function few(names: readonly string[], most = 3): string {
  return names.length <= most + 1 ? list(names) : list([...names.slice(0, most), `${names.length - most} more`])
}

/** About how long something takes: "75 s", "12 min". @param seconds 0 or more */
export function roughTime(seconds: number): string {
  return seconds < 100 ? `${fixed(exact(seconds), 0)} s` : `${fixed(exact(seconds).div(60), 0)} min`
}
