import { z } from 'zod'
import { takenUntil } from '../schedule/schedule'
import { look } from '../quiz/check/check'
import { setAt } from '../quiz/edits/make'
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
  checks(value, quiz) {
    const { windows, limit } = quiz.rules
    const ends = limit !== null || windows.some((window) => takenUntil(window, quiz.rules) !== null)
    if (value !== 'finish' || ends || !windows.length) return []
    return [
      look(
        'finish-without-end',
        'rules',
        'Time is never up',
        `When time is up they may finish, but there is neither a time limit nor an end of the window, so nobody is ever late by that.`,
        { label: 'Hand in what is there', edit: setAt(quiz, ['rules', 'atDeadline'], 'handIn') },
      ),
    ]
  },
  words: wordsOf,
}
