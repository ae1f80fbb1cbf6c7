import { day, plus } from '../../kit/time'
import { list, sentenceTime } from '../../kit/words'
import { latestEnd } from '../../schedule/clock'
import type { Edit } from '../edits'
import type { Quiz, Window } from '../schema'
import { type Remedy, type CheckContext, type Found, stop, look } from './check'
import { attemptChecks } from './grade'

const week = 7 * day

type Put = (window: string, values: Partial<Window>) => Edit

function backwardsRemedy(window: Window, put: Put): Remedy {
  return window.closes! < window.opens
    ? { label: 'Swap the two times', edit: put(window.id, { opens: window.closes!, closes: window.opens }) }
    : { label: 'Close it a day later', edit: put(window.id, { closes: plus(window.opens, day) }) }
}

function goneRemedy(window: Window, rules: Quiz['rules'], context: CheckContext, put: Put): Remedy {
  const there = window.classes.filter((id) => context.classNames.has(id))
  return there.length
    ? { label: 'Take that class out', edit: put(window.id, { classes: there }) }
    : {
        label: 'Take the window out',
        edit: { do: 'setRules', values: { windows: rules.windows.filter((each) => each !== window) } },
      }
}

export function windowChecks({ rules }: Quiz, context: CheckContext): Found {
  if (!rules.windows.length)
    return [
      stop('no-window', 'rules', 'Nobody can sit it yet', 'Say which class may sit it, and when.', {
        label: 'Go to the windows',
        goTo: 'windows',
      }),
    ]
  const name = (ids: string[]) => list(ids.map((id) => context.classNames.get(id) ?? 'a class that is gone'))
  const found: Found = []
  const put: Put = (id, values) => ({
    do: 'setRules',
    values: { windows: rules.windows.map((window) => (window.id === id ? { ...window, ...values } : window)) },
  })
  for (const window of rules.windows) {
    if (window.closes !== null && window.closes <= window.opens)
      found.push(
        stop(
          `backwards:${window.id}`,
          'rules',
          `The window of ${name(window.classes)} closes before it opens`,
          `It opens ${sentenceTime(window.opens, context.zone)} and closes ${sentenceTime(window.closes, context.zone)}.`,
          backwardsRemedy(window, put),
        ),
      )
    else if (window.closes !== null && window.closes <= context.now)
      found.push(
        stop(
          `over:${window.id}`,
          'rules',
          `The window of ${name(window.classes)} is over`,
          `It closed ${sentenceTime(window.closes, context.zone)}. Give it a later time.`,
          { label: 'Close it a week from now', edit: put(window.id, { closes: plus(context.now, week) }) },
        ),
      )
    if (window.due !== null && window.due < window.opens)
      found.push(
        stop(
          `due:${window.id}`,
          'rules',
          'A due time lies before its window',
          `${name(window.classes)}: due ${sentenceTime(window.due, context.zone)}, but it opens ${sentenceTime(window.opens, context.zone)}.`,
          { label: 'Take out the due time', edit: put(window.id, { due: null }) },
        ),
      )
    if (window.classes.some((id) => !context.classNames.has(id)))
      found.push(
        stop(
          `gone:${window.id}`,
          'rules',
          'A window is for a class that is gone',
          'Choose the classes of this window anew.',
          goneRemedy(window, rules, context, put),
        ),
      )
  }
  return found
}

export function clockChecks({ rules }: Quiz, context: CheckContext): Found {
  const found: Found = []
  if (rules.limit === null && rules.windows.some((window) => window.closes === null)) {
    found.push(
      look(
        'no-end',
        'rules',
        'Some sittings never end',
        'There is neither a time limit nor a closing time, so nothing hands in a paper that is left open.',
        { label: 'Set a limit of 60 minutes', edit: { do: 'setRules', values: { limit: 60 } } },
      ),
    )
  }
  const waits = context.students.some(({ schedule }) => latestEnd(schedule) === null)
  const release = rules.release
  if (
    waits &&
    (['windowClosed', 'everyoneDone'] as const).some((at) => Object.values(release).some((rule) => rule.from.at === at))
  ) {
    found.push(
      look(
        'never-released',
        'rules',
        'Something is never shown',
        'What is shown “when the window has closed” or “when everyone is done” waits for an end that does not come. Give every window a closing time.',
        {
          label: 'Close windows without an end in a week',
          edit: {
            do: 'setRules',
            values: {
              windows: rules.windows.map((window) =>
                window.closes === null
                  ? { ...window, closes: plus(window.opens > context.now ? window.opens : context.now, week) }
                  : window,
              ),
            },
          },
        },
      ),
    )
  }
  const extended = context.students.filter(({ schedule }) => schedule.extra > 0 && !schedule.stretchWindow)
  if (rules.atClosing === 'window' && extended.length) {
    found.push(
      look(
        'extra-cut',
        'rules',
        'Extra time may be cut off',
        `The window wins over the clock: ${list(extended.slice(0, 4).map(({ name }) => name))} ${extended.length === 1 ? 'loses' : 'lose'} extra time when starting late.`,
        { label: 'Let their clock run out', edit: { do: 'setRules', values: { atClosing: 'clock' } } },
      ),
    )
  }
  return [...found, ...attemptChecks(rules)]
}
