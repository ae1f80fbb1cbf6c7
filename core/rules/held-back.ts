import { z } from 'zod'
import { list } from '../kit/phrases'
import { id } from '../question/schema'
import { removeFrom } from '../quiz/edits/make'
import type { Reading, Rule } from './rule'

const nameOf = ({ names }: Pick<Reading, 'names'>, each: string) => names.get(each) ?? 'a class that is gone'

/** Classes to which it is not given yet, whatever their windows say: one class after another gets it. */
export const heldBack: Rule<string[]> = {
  title: 'held back',
  chapter: 'who',
  schema: z.array(id).max(200, 'A quiz is held back from at most 200 classes.'),
  usual: [],
  sentences: (value, reading) =>
    value.length
      ? [
          {
            key: 'held-back',
            pieces: [
              `It is held back from ${list(value.map((each) => nameOf(reading, each)))}. `,
              ...value.map((each) => ({
                offer: `Give it to ${nameOf(reading, each)}`,
                edit: removeFrom(reading.quiz, ['rules', 'heldBack'], [each]),
              })),
            ],
          },
        ]
      : [],
  words: (value) =>
    value.length ? `from ${value.length === 1 ? 'a class' : `${value.length} classes`}` : 'from nobody',
  changed: (before, after, reading) => [
    ...before.filter((each) => !after.includes(each)).map((each) => `given to ${nameOf(reading, each)}`),
    ...after.filter((each) => !before.includes(each)).map((each) => `held back from ${nameOf(reading, each)}`),
  ],
}
