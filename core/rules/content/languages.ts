import { z } from 'zod'
import { list } from '../../kit/phrases'
import { language } from '../../question/language'
import { languageName } from '../../question/language-name'
import { choice, slot } from '../pieces'
import type { Rule } from '../rule'

const path = ['content', 'languages']
const wordsOf = (codes: readonly string[]) =>
  codes.length ? list(codes.map(languageName)) : 'every language that its questions have'

/** In which languages a quiz is offered; none named is every one that its questions have. The first is what is read unless another is chosen. */
export const languages: Rule<string[]> = {
  title: 'languages',
  chapter: 'page',
  schema: z
    .array(language)
    .max(12, 'A quiz is offered in at most twelve languages.')
    .refine((codes) => new Set(codes).size === codes.length, 'A language is named once.'),
  usual: [],
  sentences: (value) => [
    {
      key: 'languages',
      pieces: [
        'It is offered in ',
        slot('Languages', path, value, wordsOf(value), {
          sort: 'languages',
          none: 'Every one that its questions have',
        }),
        '.',
      ],
    },
  ],
  told: (value) => (value.length > 1 ? [`You can read it in ${list(value.map(languageName))}.`] : []),
  words: wordsOf,
}

const beside = [
  { value: false, label: 'one language at a time' },
  { value: true, label: 'one language, or two of them together' },
]

/** Whether a student may read two languages together. */
export const sideBySide: Rule<boolean> = {
  title: 'two languages together',
  chapter: 'page',
  schema: z.boolean(),
  usual: false,
  sentences: (value, { quiz }) =>
    value || quiz.content.languages.length > 1
      ? [
          {
            key: 'sideBySide',
            pieces: ['Each student reads ', choice('Reading', ['content', 'sideBySide'], value, beside), '.'],
          },
        ]
      : [],
  words: (value) => beside.find((each) => each.value === value)!.label,
}
