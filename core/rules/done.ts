import { z } from 'zod'
import type { Instant } from '../kit/time'
import { look } from '../quiz/check/check'
import { setAt } from '../quiz/edits/make'
import { makesGrade } from './counts'
import { choice } from './pieces'
import type { Rule } from './rule'

const names = ['seen', 'confirmed', 'handedIn', 'marked', 'passed'] as const
/** From when somebody is done with a quiz, apart from the grade. */
export type Done = (typeof names)[number]

const labels: Record<Done, string> = {
  seen: 'once they have seen it',
  confirmed: 'once they say so themselves',
  handedIn: 'once they have handed in',
  marked: 'once it is marked',
  passed: 'once they have passed',
}
const told: Record<Done, string> = {
  seen: 'You are done with it once you have opened this page.',
  confirmed: 'You are done with it when you say so.',
  handedIn: '',
  marked: 'You are done with it once it is marked.',
  passed: 'You are done with it once you have passed.',
}

/** What is known of somebody and a quiz. */
export interface DoneFacts {
  seenAt: Instant | null
  confirmedAt: Instant | null
  attempts: readonly { state: 'open' | 'handed' | 'unsent'; markedAt: Instant | null }[]
  passed: boolean | null
}

/** Whether somebody is done with a quiz. The one place that decides it. */
export function isDone(rule: Done, { seenAt, confirmedAt, attempts, passed }: DoneFacts): boolean {
  const handed = attempts.filter(({ state }) => state === 'handed')
  switch (rule) {
    case 'seen':
      return seenAt !== null || attempts.length > 0
    case 'confirmed':
      return confirmedAt !== null
    case 'handedIn':
      return handed.length > 0
    case 'marked':
      return handed.some(({ markedAt }) => markedAt !== null)
    case 'passed':
      return passed === true
  }
}

export const done: Rule<Done> = {
  title: 'what counts as done',
  chapter: 'marks',
  schema: z.enum(names),
  usual: 'handedIn',
  sentences: (value) => [
    {
      key: 'done',
      pieces: [
        'They are done with it ',
        choice(
          'Done',
          ['rules', 'done'],
          value,
          names.map((each) => ({ value: each, label: labels[each] })),
        ),
        '.',
      ],
    },
  ],
  told: (value) => (told[value] ? [told[value]] : []),
  checks(value, quiz) {
    const edit = setAt(quiz, ['rules', 'done'], 'handedIn')
    const remedy = { label: 'Done once they have handed in', edit }
    if (value === 'passed' && (!makesGrade(quiz.rules.counts) || quiz.rules.grade.pass === null))
      return [
        look(
          'never-done',
          'rules',
          'Nobody is ever done',
          'They are done once they have passed, and nobody can pass: there is no pass mark, or no grade.',
          remedy,
        ),
      ]
    return []
  },
  words: (value) => labels[value],
}
