import { z } from 'zod'
import { same } from '../quiz/edits/paths'
import { choice, slot } from './pieces'
import type { Piece, Rule, Sentence } from './rule'

export const noticeNames = ['opening', 'reminder', 'times', 'receipt', 'release', 'results'] as const
/** A letter that students of a quiz are sent. */
export type NoticeName = (typeof noticeNames)[number]

const notice = z.strictObject({
  on: z.boolean().default(false),
  /** A teacher's own words, which stand first in the letter. */
  words: z.string().trim().max(600, 'Your words in a letter are at most 600 characters.').nullable().default(null),
})
const reminder = notice.extend({
  /** Hours before it is due, or the window closes. */
  hours: z
    .int()
    .min(1, 'A reminder comes at least an hour before.')
    .max(336, 'A reminder comes at most two weeks before.')
    .default(24),
})
const none = { on: false, words: null }

export interface Notices extends Record<Exclude<NoticeName, 'reminder'>, { on: boolean; words: string | null }> {
  reminder: { on: boolean; words: string | null; hours: number }
}

/** When each is sent, as a sentence goes on after "A letter is sent " or "Nothing is sent ". */
const moments: Record<Exclude<NoticeName, 'reminder'>, string> = {
  opening: 'to everybody for whom it is when it is opened to them',
  times: 'to whom a change of times touches',
  receipt: 'to who has handed in, as a receipt',
  release: 'when something more of their paper can be seen',
  results: 'with the grade, as soon as it can be seen',
}

const toggle = [
  { value: false, label: 'Nothing is sent' },
  { value: true, label: 'A letter is sent' },
]

function ownWords(name: NoticeName, { on, words }: { on: boolean; words: string | null }): Piece[] {
  if (!on) return []
  return [
    ', with ',
    slot(
      `Your words: ${name}`,
      ['rules', 'notices', name, 'words'],
      words,
      words ? `your words “${words}”` : 'no words of yours',
      {
        sort: 'text',
        longest: 600,
        none: 'No words of mine',
      },
    ),
  ]
}

/** What is sent by mail to those who sit it, each on or off, with a teacher's own words. Nothing that is not shown yet is in a letter. */
export const notices: Rule<Notices> = {
  title: 'letters',
  chapter: 'tell',
  schema: z.strictObject({
    opening: notice.default(none),
    reminder: reminder.default({ ...none, hours: 24 }),
    times: notice.default(none),
    receipt: notice.default(none),
    release: notice.default(none),
    results: notice.default(none),
  }),
  usual: {
    opening: none,
    reminder: { ...none, hours: 24 },
    times: none,
    receipt: none,
    release: none,
    results: none,
  },
  sentences: (value, { quiz }): Sentence[] =>
    // Of papers without names only what is the same for everybody is told.
    noticeNames
      .filter((name) => !quiz.rules.anonymous || name === 'opening' || name === 'times')
      .map((name) => ({
        key: `notice-${name}`,
        pieces: [
          choice(`Letter: ${name}`, ['rules', 'notices', name, 'on'], value[name].on, toggle),
          ' ',
          ...(name === 'reminder'
            ? value.reminder.on
              ? [
                  slot(
                    'Hours before',
                    ['rules', 'notices', 'reminder', 'hours'],
                    value.reminder.hours,
                    `${value.reminder.hours} hours`,
                    {
                      sort: 'number' as const,
                      unit: 'hours',
                      min: 1,
                      max: 336,
                    },
                  ),
                  ' before it is due, to who has not sat it',
                ]
              : ['before it is due']
            : [moments[name]]),
          ...ownWords(name, value[name]),
          '.',
        ],
      })),
  words: (value) => {
    const on = noticeNames.filter((name) => value[name].on)
    return on.length ? on.join(', ') : 'none'
  },
  changed: (before, after) =>
    noticeNames.flatMap((name) =>
      same(before[name], after[name])
        ? []
        : [
            before[name].on === after[name].on
              ? `letter “${name}” worded anew`
              : `letter “${name}” ${after[name].on ? 'on' : 'off'}`,
          ],
    ),
}
