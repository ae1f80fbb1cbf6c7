import { z } from 'zod'
import { count } from '../kit/phrases'
import { choice, slot } from './pieces'
import type { Rule } from './rule'
import { percent } from './values'

/** Whether anything is taken after the due time, and what each day begun costs, in percent of what was earned (§5, §1). */
export interface LateRule {
  accepted: boolean
  costPerDay: number
  /** Days of 24 hours after the due time in which late papers are taken; null for as long as the window is open. */
  lastDays: number | null
}

export const late: Rule<LateRule> = {
  title: 'late papers',
  chapter: 'marks',
  schema: z.strictObject({
    accepted: z.boolean(),
    costPerDay: percent,
    lastDays: z.int('Days are a whole number.').min(1, 'At least one day.').max(365, 'At most 365 days.').nullable(),
  }),
  usual: { accepted: true, costPerDay: 0, lastDays: null },
  sentences: (value, { quiz }) =>
    !quiz.rules.windows.some((window) => window.due)
      ? []
      : [
          {
            key: 'late',
            pieces: [
              'After the due time, ',
              choice('Late papers', ['rules', 'late', 'accepted'], value.accepted, [
                { value: true, label: 'accept and mark as late' },
                { value: false, label: 'late is not possible' },
              ]),
              ...(value.accepted
                ? [
                    '; each day begun costs ',
                    slot('Late cost', ['rules', 'late', 'costPerDay'], value.costPerDay, costWords(value.costPerDay), {
                      sort: 'number' as const,
                      unit: '% of what was earned',
                      max: 100,
                      step: 0.5,
                    }),
                    ', ',
                    slot('Last day', ['rules', 'late', 'lastDays'], value.lastDays, lastWords(value.lastDays), {
                      sort: 'number' as const,
                      unit: 'days after the due time',
                      min: 1,
                      max: 365,
                      step: 1,
                      none: 'No last day',
                    }),
                  ]
                : []),
              '.',
            ],
          },
        ],
  told(value, { schedule }) {
    if (!schedule.windows.some((window) => window.due)) return []
    if (!value.accepted) return ['Nothing is taken after the due time.']
    return [
      value.costPerDay
        ? `After the due time, each day begun costs ${value.costPerDay} % of what you earned.`
        : 'After the due time it is taken, and marked as late.',
      ...(value.lastDays === null ? [] : [`Nothing is taken later than ${count(value.lastDays, 'day')} after it.`]),
    ]
  },
  words: (value) =>
    value.accepted
      ? `accepted, at ${costWords(value.costPerDay)} a day${value.lastDays === null ? '' : `, ${lastWords(value.lastDays)}`}`
      : 'not possible',
}

function lastWords(days: number | null): string {
  return days === null ? 'as long as the window is open' : `for ${count(days, 'day')}`
}

function costWords(cost: number): string {
  return cost ? `${cost} %` : 'nothing'
}
