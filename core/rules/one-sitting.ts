import { z } from 'zod'
import { ms, minute, type Instant } from '../kit/time'
import { duration } from '../kit/phrases'
import { look } from '../quiz/check/check'
import { setAt, together } from '../quiz/edits/make'
import { slot } from './pieces'
import type { Rule } from './rule'

/** Minutes after which somebody who was away needs their teacher to come back in; null for no such rule. */
export type OneSitting = number | null

/**
 * Whether a paper is closed to its student until their teacher lets them in. Nobody is away while they take a break.
 * @param seenAt when they were heard of last; null lets them in
 * @param breaksEnd when each break of theirs ends
 */
export function isShutOut(
  rule: OneSitting,
  seenAt: Instant | null,
  breaksEnd: readonly Instant[],
  now: Instant,
): boolean {
  if (rule === null || seenAt === null) return false
  const heardOf = breaksEnd.reduce((last, end) => (end > last ? end : last), seenAt)
  return ms(now) - ms(heardOf) > rule * minute
}

/** What the clock that does the same job is, where there is none. */
const usualLimit = 60

export const oneSitting: Rule<OneSitting> = {
  title: 'one sitting',
  chapter: 'sitting',
  schema: z
    .number('Minutes are a number.')
    .min(1, 'Less than a minute would shut out whoever loses the connection for a moment.')
    .max(600, 'This is more than ten hours: leave it out instead.')
    .multipleOf(0.5, 'Minutes go in halves.')
    .nullable(),
  usual: null,
  sentences: (value) => [
    {
      key: 'oneSitting',
      pieces: [
        'They may leave a paper and come back ',
        slot(
          'One sitting',
          ['rules', 'oneSitting'],
          value,
          value === null ? 'as long as its time lasts' : `only within ${duration(value)}, later when you let them in`,
          { sort: 'minutes', min: 1, max: 600, step: 0.5, none: 'As long as its time lasts' },
        ),
        '.',
      ],
    },
  ],
  told: (value) =>
    value === null
      ? []
      : [
          `You sit it in one go: if you are away, or without a connection, for more than ${duration(value)}, your teacher has to let you back in.`,
        ],
  checks(value, quiz) {
    if (value === null) return []
    const { limit } = quiz.rules
    const edit = together([
      setAt(quiz, ['rules', 'oneSitting'], null),
      ...(limit === null ? [setAt(quiz, ['rules', 'limit'], usualLimit)] : []),
    ])!
    return [
      look(
        'one-sitting',
        'rules',
        'A lost connection can shut somebody out',
        `Whoever is away for more than ${duration(value)}, for whatever reason, waits for you before they can go on, and their clock runs. A running clock alone does the same job.`,
        {
          label:
            limit === null ? `Let a clock of ${usualLimit} minutes do it` : `Let the clock of ${duration(limit)} do it`,
          edit,
        },
      ),
    ]
  },
  words: (value) => (value === null ? 'not asked for' : `away ${duration(value)} at most`),
}
