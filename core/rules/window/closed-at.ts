import { instant } from '../../kit/instant'
import type { Instant } from '../../kit/time'
import { sentenceTime } from '../../kit/phrases'
import { isClosed } from '../../schedule/schedule'
import { slot } from '../pieces'
import type { WindowRule } from '../rule'

/**
 * When a teacher closed the window at once. While it closes at that instant it closes for everybody: nobody's extra time
 * stretches it (semantics §5). Given a later end, it is a window like any other again.
 */
export const closedAt: WindowRule<Instant | null> = {
  title: 'closed by hand',
  schema: instant.nullable(),
  usual: null,
  pieces: (value, window) =>
    isClosed(window)
      ? [
          ', ',
          slot('Closed by hand', ['rules', 'windows', window.id, 'closedAt'], value, 'closed for everybody', {
            sort: 'instant',
            none: 'Extra time stretches it again',
          }),
        ]
      : [],
  words: (value, { zone }) => (value ? sentenceTime(value, zone) : 'no'),
}
