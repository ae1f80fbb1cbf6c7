import { z } from 'zod'
import { look } from '../quiz/check/check'
import { setAt } from '../quiz/edits/make'
import { makesGrade } from './counts'
import { choice } from './pieces'
import type { Rule } from './rule'

const options = [
  { value: false, label: 'with the names of who sat them' },
  { value: true, label: 'without names, for good once somebody has begun' },
]

/** Whether papers are seen without whose they are. It cannot be lifted once somebody has started: students were told so. */
export const anonymous: Rule<boolean> = {
  title: 'names',
  chapter: 'who',
  schema: z.boolean(),
  usual: false,
  sentences: (value) => [
    {
      key: 'anonymous',
      pieces: ['You see papers ', choice('Names', ['rules', 'anonymous'], value, options), '.'],
    },
  ],
  told: (value) =>
    value ? ['It is anonymous: your teacher sees the papers, and never whose they are. That cannot be lifted.'] : [],
  checks: (value, quiz) =>
    value && makesGrade(quiz.rules.counts)
      ? [
          look(
            'anonymous-grade',
            'rules',
            'A grade that nobody can be given',
            'Papers are seen without names, and the quiz makes a grade: it comes into no gradebook.',
            { label: 'Let nothing count', edit: setAt(quiz, ['rules', 'counts'], 'nothing') },
          ),
        ]
      : [],
  words: (value) => (value ? 'papers without names' : 'papers with names'),
}
