import { instant } from '../../kit/instant'
import { minute, plus, type Instant } from '../../kit/time'
import { sentenceTime } from '../../kit/phrases'
import { look, stop } from '../../quiz/check/check'
import { setAt } from '../../quiz/edits/make'
import type { Window } from '../../quiz/schema'
import { offer, slot } from '../pieces'
import type { WindowRule } from '../rule'
import { whoWords } from './who'

const path = (window: Window) => ['rules', 'windows', window.id, 'latestStart']

/** Where a latest start is first put: half an hour before the window closes, or in its middle where it is shorter. */
function usualFor(window: Window & { closes: Instant }): Instant {
  const before = plus(window.closes, -30 * minute)
  return before > window.opens ? before : plus(window.opens, (Date.parse(window.closes) - Date.parse(window.opens)) / 2)
}

/** Nobody starts from then on; whoever has started goes on (semantics §5). Null for as long as the window is open. */
export const latestStart: WindowRule<Instant | null> = {
  title: 'latest start',
  schema: instant.nullable(),
  usual: null,
  pieces: (value, window, { zone, quiz }) => {
    if (value)
      return [
        ', starting at the latest ',
        slot('Latest start', path(window), value, sentenceTime(value, zone), {
          sort: 'instant',
          none: 'No latest start',
        }),
      ]
    const { closes } = window
    return closes && closes > window.opens
      ? [offer('add a latest start', quiz, path(window), usualFor({ ...window, closes }))]
      : []
  },
  told: (value, window, { zone }) =>
    value && (window.closes === null || value < window.closes)
      ? [`Start before ${sentenceTime(value, zone)}: after that nobody can start, and whoever has started goes on.`]
      : [],
  checks(value, window, quiz, { zone, names }) {
    if (value === null) return []
    const remedy = { label: 'Take out the latest start', edit: setAt(quiz, path(window), null) }
    const name = whoWords(window, names)
    if (value <= window.opens)
      return [
        stop(
          `latest-start:${window.id}`,
          'rules',
          `Nobody of ${name} can start`,
          `The latest start is ${sentenceTime(value, zone)}, and the window opens ${sentenceTime(window.opens, zone)}.`,
          remedy,
        ),
      ]
    const ends = window.closes !== null && value >= window.closes
    const taken = !quiz.rules.late.accepted && window.due !== null && value >= window.due
    if (!ends && !taken) return []
    return [
      look(
        `latest-start:${window.id}`,
        'rules',
        'A latest start changes nothing',
        `${name}: the latest start is ${sentenceTime(value, zone)}, and nobody can start from ${sentenceTime(ends ? window.closes! : window.due!, zone)} on in any case.`,
        remedy,
      ),
    ]
  },
  marks: (value, window) =>
    value && value > window.opens && (window.closes === null || value < window.closes)
      ? [{ at: value, words: 'last start', sort: 'last' }]
      : [],
  words: (value, { zone }) => (value ? sentenceTime(value, zone) : 'none'),
}
