import { changedMinutes, minutesOr, slot } from './pieces'
import type { Rule } from './rule'
import { minutes } from './values'

/** Minutes after the deadline in which what was written before it still arrives (semantics §5). */
export const grace: Rule<number> = {
  title: 'grace',
  chapter: 'sitting',
  schema: minutes.max(60, 'Grace is at most an hour.'),
  usual: 1,
  sentences: (value) => [
    {
      key: 'grace',
      pieces: [
        'What was written in time may arrive with ',
        slot('Grace', ['rules', 'grace'], value, minutesOr(value, 'no grace'), { sort: 'minutes', max: 60, step: 0.5 }),
        value ? ' of grace.' : '.',
      ],
    },
  ],
  words: (value) => minutesOr(value, 'none'),
  changed: changedMinutes('grace', 'none'),
}
