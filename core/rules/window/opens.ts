import { instant } from '../../kit/instant'
import type { Instant } from '../../kit/time'
import { sentenceTime } from '../../kit/phrases'
import { slot } from '../pieces'
import type { WindowRule } from '../rule'

/** From when somebody may start. */
export const opens: WindowRule<Instant> = {
  title: 'opens',
  schema: instant,
  usual: '',
  pieces: (value, window, { zone }) => [
    'from ',
    slot('Opens', ['rules', 'windows', window.id, 'opens'], value, sentenceTime(value, zone), { sort: 'instant' }),
    ' ',
  ],
  words: (value, { zone }) => sentenceTime(value, zone),
}
