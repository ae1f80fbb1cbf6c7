import { changedMinutes, minutesOr, slot } from './pieces'
import type { Rule } from './rule'
import { minutes } from './values'

const none = 'until the window ends'

/** With "let them finish": how long after the deadline a student may go on; null is until the window ends. */
export const overrun: Rule<number | null> = {
  title: 'greatest overrun',
  chapter: 'sitting',
  schema: minutes.nullable(),
  usual: null,
  sentences: (value, { quiz }) =>
    quiz.rules.atDeadline !== 'finish'
      ? []
      : [
          {
            key: 'overrun',
            pieces: [
              'They may go on ',
              slot(
                'Greatest overrun',
                ['rules', 'overrun'],
                value,
                value === null ? none : minutesOr(value, 'no longer'),
                {
                  sort: 'minutes',
                  max: 10_080,
                  none: 'Until the window ends',
                },
              ),
              value === null ? '.' : ' at most.',
            ],
          },
        ],
  words: (value) => minutesOr(value, none),
  changed: changedMinutes('greatest overrun', none),
}
