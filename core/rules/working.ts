import { z } from 'zod'
import { count } from '../kit/phrases'
import { look, type Found } from '../quiz/check/check'
import { setAt } from '../quiz/edits/make'
import type { Quiz } from '../quiz/schema'
import { makesGrade } from './counts'
import { choice, slot } from './pieces'
import type { Piece, Rule } from './rule'
import { percent } from './values'

/** What a student is helped with while a paper is being sat (semantics §6): for practice. */
export interface Working {
  /** An answer can be checked at once. */
  check: boolean
  /** Checks of one question; null for as many as wanted. */
  tries: number | null
  /** Percent of a question's points, for each further try. */
  cost: number
  /** Comments on a checked answer are shown with it. */
  comments: boolean
  /** Hints are given on asking. */
  hints: boolean
  /** Percent of a question's points, for each hint. */
  hintCost: number
}

const path = (name: keyof Working) => ['rules', 'working', name]
const costOr = (cost: number) => (cost ? `${cost} % of its points` : 'nothing')
const triesWords = (tries: number | null) =>
  tries === null ? 'as often as they like' : `up to ${count(tries, 'time')}`
const checkOptions = [
  { value: false, label: 'cannot be checked' },
  { value: true, label: 'can be checked at once' },
]
const commentOptions = [
  { value: false, label: 'are not shown with it' },
  { value: true, label: 'are shown with it' },
]
const hintOptions = [
  { value: false, label: 'are not given' },
  { value: true, label: 'are given on asking' },
]

function checking(value: Working): Piece[] {
  if (!value.check) return []
  return [
    ', ',
    slot('Tries', path('tries'), value.tries, triesWords(value.tries), {
      sort: 'number',
      unit: 'checks of a question',
      min: 1,
      max: 50,
      step: 1,
      none: 'As often as they like',
    }),
    '; each further try costs ',
    slot('Cost of a further try', path('cost'), value.cost, costOr(value.cost), {
      sort: 'number',
      unit: '% of its points',
      max: 100,
      step: 0.5,
    }),
    ', and comments ',
    choice('Comments at once', path('comments'), value.comments, commentOptions),
  ]
}

function checksOf(value: Working, quiz: Quiz): Found {
  if (!value.check || value.cost > 0 || value.tries === 1 || !makesGrade(quiz.rules.counts)) return []
  if (quiz.rules.counts === 'completion') return []
  return [
    look(
      'checked-and-counts',
      'rules',
      'The score counts, and answers can be tried out',
      `An answer can be checked ${triesWords(value.tries)}, at no cost, and the score makes the grade.`,
      { label: 'Let nothing count: it is practice', edit: setAt(quiz, ['rules', 'counts'], 'nothing') },
    ),
  ]
}

export const working: Rule<Working> = {
  title: 'while working',
  chapter: 'page',
  schema: z.strictObject({
    check: z.boolean(),
    tries: z.int('Tries are a whole number.').min(1, 'At least one try.').max(50, 'At most 50 tries.').nullable(),
    cost: percent,
    comments: z.boolean(),
    hints: z.boolean(),
    hintCost: percent,
  }),
  usual: { check: false, tries: null, cost: 0, comments: false, hints: false, hintCost: 0 },
  sentences: (value, { quiz }) =>
    quiz.rules.counts === 'survey'
      ? []
      : [
          {
            key: 'working',
            pieces: [
              'While they work, an answer ',
              choice('Checking', path('check'), value.check, checkOptions),
              ...checking(value),
              '. Hints ',
              choice('Hints', path('hints'), value.hints, hintOptions),
              ...(value.hints
                ? [
                    ', each for ',
                    slot('Cost of a hint', path('hintCost'), value.hintCost, costOr(value.hintCost), {
                      sort: 'number' as const,
                      unit: '% of its points',
                      max: 100,
                      step: 0.5,
                    }),
                  ]
                : []),
              '.',
            ],
          },
        ],
  told: (value, { quiz }) =>
    quiz.rules.counts === 'survey'
      ? []
      : [
          ...(value.check
            ? [
                `You can check an answer while you work, ${value.tries === null ? 'as often as you like' : triesWords(value.tries)}${value.cost ? `; each further try costs ${value.cost} % of the question’s points` : ''}.`,
              ]
            : []),
          ...(value.hints
            ? [
                `Where a question has hints, you can ask for them${value.hintCost ? `; each costs ${value.hintCost} % of the question’s points` : ''}.`,
              ]
            : []),
        ],
  checks: checksOf,
  words: (value) =>
    [value.check ? `answers checked ${triesWords(value.tries)}` : '', value.hints ? 'hints' : '']
      .filter(Boolean)
      .join(', ') || 'no help',
  changed(before, after) {
    const parts: [keyof Working, string, (value: Working) => string][] = [
      ['check', 'checking while working', (value) => (value.check ? 'yes' : 'no')],
      ['tries', 'tries of a question', (value) => triesWords(value.tries)],
      ['cost', 'cost of a further try', (value) => `${value.cost} %`],
      ['comments', 'comments at once', (value) => (value.comments ? 'yes' : 'no')],
      ['hints', 'hints', (value) => (value.hints ? 'given on asking' : 'not given')],
      ['hintCost', 'cost of a hint', (value) => `${value.hintCost} %`],
    ]
    return parts
      .filter(([name]) => before[name] !== after[name])
      .map(([, title, words]) => `${title} ${words(before)} → ${words(after)}`)
  },
}
