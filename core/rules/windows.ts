import { z } from 'zod'
import { id } from '../question/schema'
import { stop, type CheckContext } from '../quiz/check/check'
import { removeFrom } from '../quiz/edits/make'
import { same } from '../quiz/edits/paths'
import type { Quiz, Window } from '../quiz/schema'
import type { Schedule } from '../schedule/schedule'
import { windowRules } from './window'
import { whoWords } from './window/who'
import { schemasOf, usualOf, valuesIn } from './values-of'
import type { DayMark, Piece, Reading, Rule, Telling, ValuesOf, WindowRule } from './rule'

export const windowSchema = z
  .strictObject({ id, ...schemasOf(windowRules) })
  .refine(
    ({ classes, groups, students }) => classes.length + groups.length + students.length > 0,
    'A window is for at least one class, group or student.',
  )
type WindowValues = { id: string } & ValuesOf<typeof windowRules>

type Name = keyof typeof windowRules
const entries = Object.entries(windowRules) as [Name, WindowRule<unknown>][]

/** A window of its own times, with the usual value of every other rule. */
export function blankWindow(own: Pick<Window, 'id' | 'opens'> & Partial<Window>): Window {
  return { ...usualOf(windowRules), ...own }
}

/** Calls one part of every rule of a window with its value there. */
const ofEach = <R>(window: Window, call: (rule: WindowRule<unknown>, value: unknown) => R[] | undefined): R[] =>
  entries.flatMap(([name, rule]) => call(rule, window[name]) ?? [])

/** What the day line marks on the lane of a student in a window. */
export function marksOf(window: Window, schedule: Schedule): DayMark[] {
  return ofEach(window, (rule, value) => rule.marks?.(value, window, schedule))
}

/** Who may sit, from when to when (semantics §5). Each window's own rules are in `window/`. */
export const windows: Rule<WindowValues[]> = {
  title: 'windows',
  chapter: 'who',
  schema: z.array(windowSchema).max(60) as z.ZodType<WindowValues[]>,
  usual: [],
  complete: (stored) =>
    Array.isArray(stored)
      ? stored.map((each: Record<string, unknown>) => ({ id: each.id, ...valuesIn(windowRules, each) }))
      : stored,
  sentences: (value, reading) =>
    value.map((window) => {
      const pieces = ofEach<Piece>(window, (rule, each) => rule.pieces(each, window, reading))
      const isOffer = (piece: Piece) => typeof piece === 'object' && 'offer' in piece
      // What a sentence could say as well stands behind it.
      return {
        key: `window:${window.id}`,
        pieces: [
          ...pieces.filter((piece) => !isOffer(piece)),
          '. ',
          ...pieces.filter(isOffer),
          { offer: 'take out', edit: removeFrom(reading.quiz, ['rules', 'windows'], [window.id]) },
        ],
      }
    }),
  told: (_value, telling: Telling) =>
    telling.schedule.windows.flatMap((window) => ofEach(window, (rule, value) => rule.told?.(value, window, telling))),
  checks: (value, quiz: Quiz, context: CheckContext) =>
    value.length
      ? value.flatMap((window) => ofEach(window, (rule, each) => rule.checks?.(each, window, quiz, context)))
      : [
          stop('no-window', 'rules', 'Nobody can sit it yet', 'Say which class may sit it, and when.', {
            label: 'Go to the windows',
            goTo: 'windows',
          }),
        ],
  words: (value, { names }) => value.map((window) => whoWords(window, names)).join('; ') || 'none',
  changed(before, after, reading: Reading) {
    const name = (window: Window) => `window of ${whoWords(window, reading.names)}`
    const words = (rule: WindowRule<unknown>, value: unknown) => rule.words(value, reading)
    const come = after.filter((each) => !before.some((other) => other.id === each.id))
    const gone = before.filter((each) => !after.some((other) => other.id === each.id))
    const changed = after.flatMap((window) => {
      const was = before.find((each) => each.id === window.id)
      if (!was) return []
      return entries
        .filter(([key]) => !same(was[key], window[key]))
        .map(([key, rule]) =>
          key === 'password' && was[key] && window[key]
            ? `${name(window)}: ${rule.title} changed`
            : `${name(window)}: ${rule.title} ${words(rule, was[key])} → ${words(rule, window[key])}`,
        )
    })
    return [
      ...gone.map((window) => `${name(window)} taken out`),
      ...changed,
      ...come.map(
        (window) =>
          `${name(window)} added: ${words(windowRules.opens as WindowRule<unknown>, window.opens)} to ${words(windowRules.closes as WindowRule<unknown>, window.closes)}`,
      ),
    ]
  },
}
