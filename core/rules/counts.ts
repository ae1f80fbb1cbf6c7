import { z } from 'zod'
import { choice } from './pieces'
import type { Rule } from './rule'

const names = ['score', 'completion', 'nothing', 'survey'] as const
export type Counts = (typeof names)[number]
const options = [
  { value: 'score', label: 'the score' },
  { value: 'completion', label: 'handing it in, for full credit' },
  { value: 'nothing', label: 'nothing: it is for practice' },
  { value: 'survey', label: 'nothing: it is a survey, and no answer is marked' },
]

/** Whether attempts make a grade: of practice and surveys there is none, and nobody passes them. */
export const makesGrade = (counts: Counts): boolean => counts === 'score' || counts === 'completion'
const wordsOf = (value: string) => options.find((option) => option.value === value)!.label

/** What counts of an attempt (semantics §6): its score, that it was handed in, or nothing. */
export const counts: Rule<Counts> = {
  title: 'what counts',
  chapter: 'marks',
  schema: z.enum(names),
  usual: 'score',
  sentences: (value) => [
    { key: 'counts', pieces: ['What counts is ', choice('What counts', ['rules', 'counts'], value, options), '.'] },
  ],
  told: (value) =>
    value === 'completion'
      ? ['Handing it in earns full credit, whatever the score.']
      : value === 'nothing'
        ? ['It is for practice: nothing counts.']
        : value === 'survey'
          ? ['It is a survey: no answer is right or wrong, and nothing is marked.']
          : [],
  words: wordsOf,
}
