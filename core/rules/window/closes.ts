import { instant } from '../../kit/instant'
import { day, plus, type Instant } from '../../kit/time'
import { sentenceTime } from '../../kit/phrases'
import { stop, type Remedy } from '../../quiz/check/check'
import { setAt, together } from '../../quiz/edits/make'
import type { Quiz, Window } from '../../quiz/schema'
import { slot } from '../pieces'
import type { WindowRule } from '../rule'
import { whoWords } from './who'

const week = 7 * day

function backwardsRemedy(window: Window, closes: Instant, quiz: Quiz): Remedy {
  const set = (name: 'opens' | 'closes', value: Instant) => setAt(quiz, ['rules', 'windows', window.id, name], value)
  return closes < window.opens
    ? { label: 'Swap the two times', edit: together([set('opens', closes), set('closes', window.opens)])! }
    : { label: 'Close it a day later', edit: set('closes', plus(window.opens, day)) }
}

/** When the window ends; null for no end. */
export const closes: WindowRule<Instant | null> = {
  title: 'closes',
  schema: instant.nullable(),
  usual: null,
  pieces: (value, window, { zone, quiz }) => {
    const none = window.due !== null && !quiz.rules.late.accepted ? 'until it is due' : 'without an end'
    return [
      slot(
        'Closes',
        ['rules', 'windows', window.id, 'closes'],
        value,
        value ? `until ${sentenceTime(value, zone)}` : none,
        { sort: 'instant', none: 'Without an end' },
      ),
    ]
  },
  checks(value, window, quiz, { now, zone, names }) {
    if (value === null) return []
    const name = whoWords(window, names)
    if (value <= window.opens)
      return [
        stop(
          `backwards:${window.id}`,
          'rules',
          `The window of ${name} closes before it opens`,
          `It opens ${sentenceTime(window.opens, zone)} and closes ${sentenceTime(value, zone)}.`,
          backwardsRemedy(window, value, quiz),
        ),
      ]
    if (value > now) return []
    return [
      stop(
        `over:${window.id}`,
        'rules',
        `The window of ${name} is over`,
        `It closed ${sentenceTime(value, zone)}. Give it a later time.`,
        {
          label: 'Close it a week from now',
          edit: setAt(quiz, ['rules', 'windows', window.id, 'closes'], plus(now, week)),
        },
      ),
    ]
  },
  words: (value, { zone }) => (value ? sentenceTime(value, zone) : 'without an end'),
}
