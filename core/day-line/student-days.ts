import { duration, list, sentenceTime } from '../kit/phrases'
import { minute, ms, type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import { heldBack, instantOf, releaseOf, type Ends } from '../release'
import { facetLabels, facetNames, momentLabels, ofQuestions, type FacetName } from '../release/schema'
import { againUntil } from '../schedule/again'
import { furthest, lastStartOf, limitsFor } from '../schedule/clock'
import { windowEnd, type Schedule } from '../schedule/schedule'

/** Something that changes for one student. */
export interface StudentMoment {
  /** Null for what hangs on the student, which `when` says then. */
  at: Instant | null
  when: string
  words: string
}

export interface StudentDays {
  moments: StudentMoment[]
  /** What they never see. */
  never: FacetName[]
}

/** "has 1 hour 8 minutes", for a start as the window opens. */
function timeWords(schedule: Schedule, window: Schedule['windows'][number]): string {
  const { deadline } = limitsFor(schedule, { startedAt: window.opens, window: window.id })
  if (deadline === null) return 'without a clock'
  const minutes = (ms(deadline) - ms(window.opens)) / minute
  return `has ${duration(minutes)} at most`
}

/** What a student's windows bring, in order. */
function windowMoments(schedule: Schedule): (StudentMoment & { at: Instant })[] {
  return schedule.windows.flatMap((window) => {
    const end = windowEnd(schedule, window)
    const last = lastStartOf(schedule, window)
    const stop = last === null ? null : furthest(schedule, last, window).hardStop
    const moment = (at: Instant | null, words: string) => (at === null ? [] : [{ at, when: '', words }])
    return [
      ...moment(window.opens, `can start; ${timeWords(schedule, window)}`),
      ...(last !== null && last !== end ? moment(last, 'can start no more') : []),
      ...moment(window.due, 'it is due'),
      ...moment(end, last === end ? 'the window closes; can start no more' : 'the window closes'),
      ...(stop !== null && end !== null && stop > end ? moment(stop, 'whatever is still under way has ended') : []),
    ]
  })
}

/** From when a facet is shown by itself, where that hangs on nothing that the student does. */
function knownFrom(rules: Rules, name: FacetName, schedule: Schedule, classes: readonly string[], ends: Ends) {
  const rule = releaseOf(rules)[name]
  if (['handIn', 'marked', 'teacher'].includes(rule.from.at)) return null
  const window = schedule.windows.at(-1)
  const limits = window && lastStartOf(schedule, window)
  const again = againUntil(schedule, window, {
    deadline: window && limits ? limitsFor(schedule, { startedAt: limits, window: window.id }).deadline : null,
  })
  const from = instantOf(rule.from, {
    handedInAt: null,
    markedAt: null,
    attemptsUsedAt: null,
    passed: null,
    due: window?.due ?? null,
    classEnd: ends.ofClasses(classes),
    everyoneEnd: ends.everyone,
    releasedAt: null,
    againUntil: again,
    viewed: [],
  })
  return heldBack(name, rule, from, { againUntil: again })
}

function facetWords(rules: Rules, name: FacetName): string {
  const { ifPassed, once, wrongOnly } = releaseOf(rules)[name]
  const notes = [
    ...(ifPassed ? ['only who has passed'] : []),
    ...(once ? ['once'] : []),
    ...(wrongOnly && ofQuestions.includes(name) ? ['only of those not fully right'] : []),
  ]
  return facetLabels[name].toLowerCase() + (notes.length ? ` (${notes.join(', ')})` : '')
}

/** In order; what a window brings at the same instant is said together. */
function together(moments: (StudentMoment & { at: Instant })[]): (StudentMoment & { at: Instant })[] {
  const said = new Map<string, StudentMoment & { at: Instant }>()
  for (const each of moments) {
    const key = `${each.at} ${each.when}`
    const known = said.get(key)
    said.set(key, known ? { ...known, words: `${known.words}; ${each.words}` } : each)
  }
  return [...said.values()].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
}

const offsetWords = (offset: number) => (offset ? `, ${duration(offset)} later` : '')

/**
 * What one student sees of a quiz, moment by moment, in words: what they can do, what is shown to them, and what never is
 * (semantics §5, §7). Moments that hang on what they do stand where they can begin.
 * @param ends of everybody for whom the quiz is
 */
export function studentDays(
  rules: Rules,
  { schedule, classes }: { schedule: Schedule; classes: readonly string[] },
  ends: Ends,
): StudentDays {
  const dated = new Map<string, { at: Instant; when: string; facets: string[] }>()
  const open = new Map<string, string[]>()
  const never: FacetName[] = []
  const hidden: (StudentMoment & { at: Instant })[] = []
  for (const name of facetNames) {
    const rule = releaseOf(rules)[name]
    if (rule.from.at === 'never') {
      never.push(name)
      continue
    }
    const words = facetWords(rules, name)
    const at = knownFrom(rules, name, schedule, classes, ends)
    const when = momentLabels[rule.from.at] + ('offset' in rule.from ? offsetWords(rule.from.offset) : '')
    if (at === null) open.set(when, [...(open.get(when) ?? []), words])
    else {
      // Using up one's attempts may come earlier than the end that uses them up by itself.
      const said = rule.from.at === 'attemptsUsed' ? `${when}, at the latest` : rule.from.at === 'instant' ? '' : when
      const key = `${at} ${said}`
      dated.set(key, { at, when: said, facets: [...(dated.get(key)?.facets ?? []), words] })
    }
    if (rule.until !== null) hidden.push({ at: rule.until, when: '', words: `no more: ${words}` })
  }
  const windows = windowMoments(schedule)
  const first = windows[0]?.at ?? null
  const fixed = together([
    ...windows,
    ...[...dated.values()].map(({ at, when, facets }) => ({ at, when, words: `sees ${facets.join(', ')}` })),
    ...hidden,
  ])
  const hanging = [...open].map(([when, facets]) => ({ at: null, when, words: `sees ${facets.join(', ')}` }))
  const begun = fixed.findIndex(({ at }) => at === first) + 1
  return {
    moments: [
      ...(rules.announced && windows.length
        ? [{ at: null, when: 'beforehand', words: 'sees that it is to come, and when' }]
        : []),
      ...fixed.slice(0, begun),
      ...hanging,
      ...fixed.slice(begun),
    ],
    never,
  }
}

/** When something happens, as it is read: "Tue 1 Dec, 22:08, when everyone is done". */
export const momentWords = ({ at, when }: StudentMoment, zone: string): string =>
  [at === null ? '' : sentenceTime(at, zone), when].filter(Boolean).join(', ')

/** The same as lines of a text: what happens when, and what never does. */
export const daysAsLines = ({ moments, never }: StudentDays, zone: string): string[] => [
  ...moments.map((each) => `${momentWords(each, zone)}: ${each.words}`),
  ...(never.length ? [`never: ${neverWords(never)}`] : []),
]

export const neverWords = (never: readonly FacetName[]): string =>
  list(never.map((name) => facetLabels[name].toLowerCase()))
