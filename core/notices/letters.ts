import { count, duration, list, sentenceTime } from '../kit/phrases'
import { minute, ms, type Instant } from '../kit/time'
import { facetLabels, type FacetName } from '../release/schema'
import type { NoticeName } from '../rules/notices'
import { lastStartOf, limitsFor } from '../schedule/clock'
import { windowEnd, type Schedule } from '../schedule/schedule'

/** What a letter about a quiz is written from. Nothing that its student may not see yet is in it. */
export interface LetterFacts {
  name: NoticeName
  title: string
  school: string
  /** Whom it is to. */
  student: string
  zone: string
  schedule: Schedule
  /** The teacher's own words, or none. */
  words: string | null
  /** Where Thistle is reached, "https://quiz.example"; empty where that is not known. */
  site: string
  /** The quiz, and the review of the paper that it is about. */
  quiz: string
  attempt: string | null
  /** Of a receipt. */
  handedIn: { at: Instant; answered: number; questions: number; code: string } | null
  facets: readonly FacetName[]
  /** Of results: the grade as its student reads it, and whether they passed. */
  grade: { text: string; passed: boolean | null } | null
  /** Of a reminder: what it reminds of. */
  at: Instant | null
  /** Where no more reminders are asked for; empty where there is no such place. */
  stop: string
}

/** When somebody can sit it, a line a window. */
export function timeLines(schedule: Schedule, zone: string): string[] {
  const when = (at: Instant) => sentenceTime(at, zone)
  return schedule.windows.map((window) => {
    const end = windowEnd(schedule, window)
    const last = lastStartOf(schedule, window)
    const { deadline } = limitsFor(schedule, { startedAt: window.opens, window: window.id })
    const minutes = schedule.limit !== null && deadline !== null ? (ms(deadline) - ms(window.opens)) / minute : null
    return [
      `from ${when(window.opens)}${end ? ` to ${when(end)}` : ' on, without an end'}`,
      ...(last !== null && last !== end ? [`start by ${when(last)}`] : []),
      ...(window.due ? [`due ${when(window.due)}`] : []),
      ...(minutes !== null ? [`you have ${duration(minutes)}`] : []),
    ].join('; ')
  })
}

const subjects: Record<NoticeName, (facts: LetterFacts) => string> = {
  opening: ({ title }) => `A quiz for you: ${title}`,
  reminder: ({ title, at, zone }) => `Not sat yet: ${title}${at ? `, until ${sentenceTime(at, zone)}` : ''}`,
  times: ({ title }) => `Other times for ${title}`,
  receipt: ({ title }) => `Handed in: ${title}`,
  release: ({ title }) => `There is more to see of ${title}`,
  results: ({ title }) => `Your result in ${title}`,
}

const times = ({ schedule, zone, school }: LetterFacts): string[] => [
  ...timeLines(schedule, zone).map((line) => `  ${line}`),
  `(times of ${school}, ${zone})`,
]

const said: Record<NoticeName, (facts: LetterFacts) => string[]> = {
  opening: (facts) => [`“${facts.title}” can be sat:`, '', ...times(facts)],
  reminder: (facts) => [
    `you have not sat “${facts.title}” yet.${facts.at ? ` It ends ${sentenceTime(facts.at, facts.zone)}.` : ''}`,
    '',
    ...times(facts),
  ],
  times: (facts) =>
    facts.schedule.windows.length
      ? [`the times of “${facts.title}” are others than before. They are now:`, '', ...times(facts)]
      : [`“${facts.title}” cannot be sat by you at the moment: your times for it were taken out.`],
  receipt: ({ title, handedIn, zone }) => [
    `your paper in “${title}” was handed in${handedIn ? ` ${sentenceTime(handedIn.at, zone)}` : ''}.`,
    ...(handedIn
      ? [
          `${count(handedIn.answered, 'answer')} to ${count(handedIn.questions, 'question')} ${handedIn.answered === 1 ? 'was' : 'were'} kept. The code of this receipt is ${handedIn.code}.`,
        ]
      : []),
  ],
  release: ({ title, facets }) => [
    `of your paper in “${title}” you can now see: ${list(facets.map((name) => facetLabels[name].toLowerCase()))}.`,
  ],
  results: ({ title, grade }) => [
    `your grade in “${title}” is ${grade?.text ?? ''}${grade?.passed === null || grade?.passed === undefined ? '' : grade.passed ? ': passed' : ': not passed'}.`,
  ],
}

/** Where its student goes on from the letter. */
function placeOf({ name, site, quiz, attempt }: LetterFacts): string[] {
  if (!site) return []
  const path = ['receipt', 'release', 'results'].includes(name) && attempt ? `/review/${attempt}` : `/my/${quiz}`
  return ['', `${site}${path}`]
}

/** A letter about a quiz, as it is sent: plain text. */
export function letterOf(facts: LetterFacts): { subject: string; body: string } {
  const lines = [
    `Hello ${facts.student},`,
    '',
    ...(facts.words ? [facts.words, ''] : []),
    ...said[facts.name](facts),
    ...placeOf(facts),
    ...(facts.name === 'reminder' && facts.stop ? ['', `To get no more reminders: ${facts.stop}`] : []),
    '',
    facts.school,
  ]
  return { subject: subjects[facts.name](facts).slice(0, 200), body: `${lines.join('\n')}\n` }
}
