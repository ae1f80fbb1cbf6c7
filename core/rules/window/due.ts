import { instant } from '../../kit/instant'
import type { Instant } from '../../kit/time'
import { sentenceTime } from '../../kit/phrases'
import { look, stop } from '../../quiz/check/check'
import { setAt } from '../../quiz/edits/make'
import { slot } from '../pieces'
import type { WindowRule } from '../rule'
import { whoWords } from './who'

/** After it an attempt is late, or nothing is taken any more (semantics §5). */
export const due: WindowRule<Instant | null> = {
  title: 'due',
  schema: instant.nullable(),
  usual: null,
  pieces: (value, window, { zone }) => [
    ', ',
    slot(
      'Due time',
      ['rules', 'windows', window.id, 'due'],
      value,
      value ? `due ${sentenceTime(value, zone)}` : 'no due time',
      { sort: 'instant', none: 'No due time' },
    ),
  ],
  told: (value, _window, { zone }) => (value ? [`It is due ${sentenceTime(value, zone)}.`] : []),
  checks(value, window, quiz, { zone, names }) {
    if (value === null || value > window.opens) return []
    const name = whoWords(window, names)
    const remedy = {
      label: 'Take out the due time',
      edit: setAt(quiz, ['rules', 'windows', window.id, 'due'], null),
    }
    if (value === window.opens)
      return [
        quiz.rules.late.accepted
          ? look(
              `due:${window.id}`,
              'rules',
              'Everything is late',
              `${name}: it is due the moment it opens, ${sentenceTime(value, zone)}, so whatever is handed in is late.`,
              remedy,
            )
          : stop(
              `due:${window.id}`,
              'rules',
              `Nobody of ${name} can start`,
              `It is due the moment it opens, ${sentenceTime(value, zone)}, and nothing is taken after that.`,
              remedy,
            ),
      ]
    return [
      stop(
        `due:${window.id}`,
        'rules',
        'A due time lies before its window',
        `${name}: due ${sentenceTime(value, zone)}, but it opens ${sentenceTime(window.opens, zone)}.`,
        remedy,
      ),
    ]
  },
  marks: (value) => (value ? [{ at: value, words: 'due', sort: 'due' }] : []),
  words: (value, { zone }) => (value ? sentenceTime(value, zone) : 'none'),
}
