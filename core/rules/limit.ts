import { duration } from '../kit/phrases'
import { setAt } from '../quiz/edits/make'
import { takenUntil } from '../schedule/schedule'
import { look } from '../quiz/check/check'
import { changedMinutes, minutesOr, slot } from './pieces'
import type { Rule } from './rule'
import { minutes } from './values'

/** How long each student has from when they start; null for no limit (semantics §5). */
export const limit: Rule<number | null> = {
  title: 'limit',
  chapter: 'sitting',
  schema: minutes.min(1, 'A time limit is at least a minute.').nullable(),
  usual: 45,
  sentences: (value) => [
    {
      key: 'limit',
      pieces: [
        'Each student has ',
        slot('Time limit', ['rules', 'limit'], value, minutesOr(value, 'no time limit'), {
          sort: 'minutes',
          min: 1,
          max: 10_080,
          none: 'No time limit',
        }),
        value === null ? '.' : ' from when they start.',
      ],
    },
  ],
  told: (_value, { schedule }) =>
    schedule.limit === null
      ? ['There is no time limit. Your answers are kept as you go, and you may come back.']
      : [
          `You have ${duration(schedule.limit)}.`,
          'If you lose your connection, come back: your answers are kept and your clock keeps running.',
        ],
  checks(value, quiz) {
    const { atDeadline, overrun, windows } = quiz.rules
    if (windows.every((window) => takenUntil(window, quiz.rules) !== null)) return []
    if (value === null)
      return [
        look(
          'no-end',
          'rules',
          'Some sittings never end',
          'There is neither a time limit nor a closing time, so nothing hands in a paper that is left open.',
          { label: 'Set a limit of 60 minutes', edit: setAt(quiz, ['rules', 'limit'], 60) },
        ),
      ]
    if (atDeadline !== 'finish' || overrun !== null) return []
    return [
      look(
        'no-end',
        'rules',
        'Some sittings never end',
        'Students may finish after their time is up, and there is neither a closing time nor a greatest overrun. Nothing hands in a paper that is left open.',
        { label: 'Let them finish within 60 minutes', edit: setAt(quiz, ['rules', 'overrun'], 60) },
      ),
    ]
  },
  words: (value) => minutesOr(value, 'none'),
  changed: changedMinutes('limit', 'none'),
}
