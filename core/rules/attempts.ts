import { z } from 'zod'
import { minute, ms } from '../kit/time'
import { count, duration } from '../kit/phrases'
import { look } from '../quiz/check/check'
import { setAt } from '../quiz/edits/make'
import type { Rules } from '../quiz/schema'
import { choice, minutesOr, slot } from './pieces'
import type { Rule, Piece } from './rule'
import { minutes, percent } from './values'

export interface Attempts {
  /** Null for as many as wanted. */
  count: number | null
  /** Minutes from handing in to the next start. */
  wait: number
  /** `missed` holds only what was not fully right so far (semantics §6). */
  draw: 'fresh' | 'same' | 'missed'
  untilPassed: boolean
  /** Percent of the counting grade from which there is no further attempt; null for none. */
  untilShare: number | null
  /** Percent of what was earned, for each further attempt. */
  cost: number
  /** Whether a paper that was handed in may be taken up again until the due time (semantics §6). */
  again: boolean
}

const draws = [
  { value: 'fresh', label: 'a fresh draw' },
  { value: 'same', label: 'the same paper' },
  { value: 'missed', label: 'only the questions missed so far' },
]
const finals = [
  { value: false, label: 'is final' },
  { value: true, label: 'is not final: the paper may be taken up again until it is due' },
]
const shareWords = (share: number | null) =>
  share === null ? 'however much is reached' : `until ${share} % is reached`
const countWords = (value: number | null) => (value === null ? 'any number of attempts' : count(value, 'attempt'))

/** Minutes from the first opening to the last closing that some class has: a further attempt may be in another window. */
function longestSpan({ windows }: Rules): number {
  const classes = [...new Set(windows.flatMap((window) => window.classes))]
  return Math.max(
    0,
    ...classes.map((name) => {
      const own = windows.filter((window) => window.classes.includes(name))
      const ends = own.map(({ closes }) => (closes === null ? Infinity : ms(closes)))
      return (Math.max(...ends) - Math.min(...own.map(({ opens }) => ms(opens)))) / minute
    }),
  )
}

/** How often somebody may sit, with what between, and what a further attempt costs (semantics §6). */
export const attempts: Rule<Attempts> = {
  title: 'attempts',
  chapter: 'marks',
  schema: z.strictObject({
    count: z.int().min(1).max(100).nullable(),
    wait: minutes,
    draw: z.enum(['fresh', 'same', 'missed']),
    untilPassed: z.boolean(),
    untilShare: percent.min(0.5, 'A share is at least half a percent.').nullable(),
    cost: percent,
    again: z.boolean(),
  }),
  usual: { count: 1, wait: 0, draw: 'fresh', untilPassed: false, untilShare: null, cost: 0, again: false },
  sentences(value) {
    const path = (name: keyof Attempts) => ['rules', 'attempts', name]
    const several: Piece[] = [
      ', at least ',
      slot('Wait between attempts', path('wait'), value.wait, minutesOr(value.wait, 'no wait'), {
        sort: 'minutes',
        max: 43_200,
        step: 5,
      }),
      value.wait ? ' apart, with ' : ', with ',
      choice('Further papers', path('draw'), value.draw, draws),
      ' each time, ',
      choice('Until passed', path('untilPassed'), value.untilPassed, [
        { value: false, label: 'whether passed or not' },
        { value: true, label: 'until passed' },
      ]),
      ', ',
      slot('Until a share', path('untilShare'), value.untilShare, shareWords(value.untilShare), {
        sort: 'number',
        unit: '% of the points reached',
        min: 0.5,
        max: 100,
        step: 0.5,
        none: 'However much is reached',
      }),
      '; each further attempt costs ',
      slot('Cost of a further attempt', path('cost'), value.cost, value.cost ? `${value.cost} %` : 'nothing', {
        sort: 'number',
        unit: '% of what it earned',
        max: 100,
        step: 0.5,
      }),
    ]
    return [
      {
        key: 'attempts',
        pieces: [
          'Up to ',
          slot('Attempts', path('count'), value.count, countWords(value.count), {
            sort: 'number',
            unit: 'attempts',
            min: 1,
            max: 100,
            none: 'Any number',
          }),
          ...(value.count === 1 ? [] : several),
          '.',
        ],
      },
      { key: 'again', pieces: ['Handing in ', choice('Handing in', path('again'), value.again, finals), '.'] },
    ]
  },
  told(value, { schedule }) {
    const attempts = schedule.attempts.count
    const again = value.again
      ? ['After you have handed it in you may take it up again until it is due, as long as its time is not up.']
      : []
    if (attempts === 1) return again
    return [
      ...again,
      attempts === null ? 'You may sit it as often as you like.' : `You have up to ${count(attempts, 'attempt')}.`,
      ...(value.wait ? [`Between two attempts lie at least ${duration(value.wait)}.`] : []),
      ...(value.untilPassed ? ['Once you have passed there is no further attempt.'] : []),
      ...(value.untilShare === null
        ? []
        : [`Once your grade has reached ${value.untilShare} % there is no further attempt.`]),
      ...(value.draw === 'missed'
        ? ['A further attempt holds only the questions that were not fully right so far; the best of each counts.']
        : []),
      ...(value.cost ? [`Each further attempt costs ${value.cost} % of what it earned.`] : []),
    ]
  },
  checks(value, quiz) {
    const longest = longestSpan(quiz.rules)
    if (value.count === 1 || !quiz.rules.windows.length || value.wait < longest) return []
    return [
      look(
        'one-in-practice',
        'rules',
        'One attempt in practice',
        `A further attempt needs ${duration(value.wait)} between, but from the first opening to the last closing it is only ${duration(longest)} for any class.`,
        { label: 'Take out the wait', edit: setAt(quiz, ['rules', 'attempts', 'wait'], 0) },
      ),
    ]
  },
  words: (value) => countWords(value.count),
  changed(before, after) {
    const parts: [keyof Attempts, string, (value: Attempts) => string][] = [
      ['count', 'attempts', (value) => String(value.count ?? 'any number')],
      ['wait', 'wait between attempts', (value) => minutesOr(value.wait, 'none')],
      ['draw', 'further papers', (value) => draws.find((each) => each.value === value.draw)!.label],
      ['untilPassed', 'until passed', (value) => (value.untilPassed ? 'yes' : 'no')],
      ['untilShare', 'until a share', (value) => shareWords(value.untilShare)],
      ['again', 'handing in', (value) => finals.find((each) => each.value === value.again)!.label],
      ['cost', 'cost of a further attempt', (value) => `${value.cost} %`],
    ]
    return parts
      .filter(([name]) => before[name] !== after[name])
      .map(([, title, words]) => `${title} ${words(before)} → ${words(after)}`)
  },
}
