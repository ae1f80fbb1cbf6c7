import { z } from 'zod'
import { choice } from './pieces'
import type { Rule } from './rule'

const names = ['handIn', 'finish', 'unsent'] as const
const options = [
  { value: 'handIn', label: 'hand in what is there' },
  { value: 'finish', label: 'let them finish, flagged as late' },
  { value: 'unsent', label: 'leave it unsent, counted as zero' },
]
const wordsOf = (value: string) => options.find((option) => option.value === value)!.label

/** What happens when time is up (semantics §5). */
export const atDeadline: Rule<(typeof names)[number]> = {
  title: 'when time is up',
  chapter: 'sitting',
  schema: z.enum(names),
  usual: 'handIn',
  sentences: (value) => [
    {
      key: 'atDeadline',
      pieces: ['When time is up, ', choice('At the deadline', ['rules', 'atDeadline'], value, options), '.'],
    },
  ],
  told(value, { schedule }) {
    const ends =
      schedule.limit !== null
        ? 'When time is up'
        : schedule.windows.some((window) => window.closes !== null)
          ? 'When the window closes'
          : null
    if (value === 'unsent') return ['Hand in before time is up: a paper that is not handed in counts as zero.']
    if (!ends) return []
    return value === 'handIn'
      ? [`${ends}, what is there is handed in.`]
      : [`${ends} you may finish, and what comes after is flagged as late.`]
  },
  words: wordsOf,
}
