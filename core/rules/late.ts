import { z } from 'zod'
import { choice, slot } from './pieces'
import type { Rule } from './rule'
import { percent } from './values'

/** Whether anything is taken after the due time, and what each day begun costs, in percent of what was earned (§5, §1). */
export const late: Rule<{ accepted: boolean; costPerDay: number }> = {
  title: 'late papers',
  chapter: 'marks',
  schema: z.strictObject({ accepted: z.boolean(), costPerDay: percent }),
  usual: { accepted: true, costPerDay: 0 },
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
                  ]
                : []),
              '.',
            ],
          },
        ],
  told(value, { schedule }) {
    if (!schedule.windows.some((window) => window.due)) return []
    if (!value.accepted) return ['Nothing is taken after the due time.']
    return value.costPerDay
      ? [`After the due time, each day begun costs ${value.costPerDay} % of what you earned.`]
      : ['After the due time it is taken, and marked as late.']
  },
  words: (value) => (value.accepted ? `accepted, at ${costWords(value.costPerDay)} a day` : 'not possible'),
}

function costWords(cost: number): string {
  return cost ? `${cost} %` : 'nothing'
}
