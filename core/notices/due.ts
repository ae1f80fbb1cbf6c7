import { earlier, hasEnded, minute, ms, plus, type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import { facetNames, type FacetName } from '../release/schema'
import type { Visible } from '../release/facets'
import type { NoticeName } from '../rules/notices'
import { lastStartOf } from '../schedule/clock'
import { windowEnd, type Schedule } from '../schedule/schedule'
import { latestEnd } from '../schedule/starts'

/** What was told somebody of a quiz: by what it is about, how it stood then. */
export type Told = ReadonlyMap<string, string>

export interface NoticeAttempt {
  id: string
  number: number
  /** Null while it is under way. */
  handedInAt: Instant | null
  state: 'open' | 'handed' | 'unsent'
  /** What may be seen of it now; null while it is under way. */
  visible: Visible | null
  /** The grade may be told in lists: it is shown, and not only once. */
  gradeInLists: boolean
}

/** A student of a quiz that is open, as its letters need them. */
export interface NoticeStudent {
  schedule: Schedule
  attempts: readonly NoticeAttempt[]
  /** They have asked for no reminders. */
  noReminders: boolean
  told: Told
}

/** A letter that is due. */
export interface DueNotice {
  name: NoticeName
  /** What is noted as told, under which name. */
  about: string
  value: string
  attempt: string | null
  /** Of a release: what can be seen since. */
  facets: readonly FacetName[]
  /** Of a reminder: what it reminds of. */
  at: Instant | null
  /** Noted, and not sent: switched off, long past, or how things stood when the quiz was first looked at. */
  silent: boolean
}

/** What is older than this is told no more: after a failure, or when letters are switched on later. */
const oldest = 24 * 60 * minute

/** What of a student's times stands in a letter: when it is another, they are told. */
export const timesOf = (schedule: Schedule): string =>
  JSON.stringify([
    schedule.windows.map((window) => [
      window.opens,
      windowEnd(schedule, window),
      window.due,
      lastStartOf(schedule, window),
    ]),
    schedule.limit,
  ])

/** Whether some of the times that were told had not ended at an instant. */
function wereToCome(times: string, now: Instant): boolean {
  const [windows] = JSON.parse(times) as [[Instant, Instant | null][], number | null]
  return windows.some(([, end]) => end === null || end > now)
}

const before = (told: Told, name: NoticeName, about = '') => told.get(`${name} ${about}`)

/**
 * The letters that are due to one student at an instant, in the order in which they are sent, and when to look again.
 * Pure: whoever sends them notes each as told in the same act, and only one of any number can.
 */
export function dueNotices(
  { notices, announced, anonymous }: Pick<Rules, 'notices' | 'announced' | 'anonymous'>,
  student: NoticeStudent,
  now: Instant,
): { due: DueNotice[]; next: Instant | null } {
  const { attempts, told } = student
  // What is held back from them is not given yet: nothing is told of it.
  const schedule = student.schedule.held === null ? student.schedule : { ...student.schedule, windows: [] }
  const due: DueNotice[] = []
  let next: Instant | null = null
  const later = (at: Instant | null) => {
    if (at !== null && at > now) next = earlier(next, at)
  }
  const isPast = (at: Instant) => ms(now) - ms(at) > oldest
  const add = (name: NoticeName, about: string, value: string, more: Partial<DueNotice> = {}) =>
    due.push({ name, about, value, attempt: null, facets: [], at: null, silent: !notices[name].on, ...more })

  const over = hasEnded(latestEnd(schedule), now)
  // Who was told of times that were still to come, and has none any more, is told so.
  const gone = before(told, 'times')
  if (
    !schedule.windows.length &&
    gone !== undefined &&
    gone !== timesOf(schedule) &&
    before(told, 'opening') !== undefined
  )
    add('times', '', timesOf(schedule), { silent: !notices.times.on || !wereToCome(gone, now) })
  const [first] = schedule.windows
  if (first) {
    // One that is not announced is not told beforehand.
    const from = announced ? now : first.opens
    later(from)
    if (from <= now && before(told, 'opening') === undefined)
      add('opening', '', 'told', { silent: !notices.opening.on || over })
    const times = timesOf(schedule)
    const known = before(told, 'times')
    if (from <= now && known !== times) {
      // How things stand when they are told of the quiz is no change.
      const isChange = known !== undefined && before(told, 'opening') !== undefined
      add('times', '', times, { silent: !notices.times.on || !isChange || over })
    }
  }

  // Whose a paper without a name is, and whether there is one, stands in no letter.
  if (anonymous) return { due, next }

  const hours = notices.reminder.hours * 60 * minute
  for (const window of schedule.windows) {
    // From then on papers come in, which nobody tells of beforehand.
    later(window.opens)
    const end = window.due ?? lastStartOf(schedule, window)
    if (end === null || attempts.length) continue
    const from = plus(end, -hours)
    const at = from > window.opens ? from : window.opens
    later(at)
    if (at <= now && now < end && before(told, 'reminder', window.id) === undefined)
      add('reminder', window.id, end, { at: end, silent: !notices.reminder.on || student.noReminders })
  }

  for (const attempt of attempts) {
    const { id, handedInAt, visible } = attempt
    if (handedInAt === null || visible === null) continue
    const old = isPast(handedInAt)
    // One that was taken up again is in anew.
    if (before(told, 'receipt', id) !== handedInAt)
      add('receipt', id, handedInAt, { attempt: id, silent: !notices.receipt.on || old || attempt.state === 'unsent' })
    later(visible.changesAt)
    // What they saw on handing in, they have seen: only what is shown later is told.
    const shown = facetNames.filter((name) => {
      const { shown: is, from } = visible.facets[name]
      return is && from !== null && from > handedInAt
    })
    const known = (before(told, 'release', id) ?? '').split(' ').filter(Boolean)
    const fresh = shown.filter((name) => !known.includes(name))
    if (fresh.length) {
      const newest = fresh
        .map((name) => visible.facets[name].from!)
        .sort()
        .at(-1)!
      // What is hidden for a while has been told all the same.
      add('release', id, [...known, ...fresh].join(' '), {
        attempt: id,
        facets: fresh,
        silent: !notices.release.on || isPast(newest),
      })
    }
    if (attempt.gradeInLists && visible.facets.grade.shown && before(told, 'results', id) === undefined)
      add('results', id, 'told', {
        attempt: id,
        silent: !notices.results.on || isPast(visible.facets.grade.from ?? handedInAt),
      })
  }
  return { due, next }
}
