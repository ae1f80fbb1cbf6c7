import { z } from 'zod'
import { languageName } from '../question/language-name'
import { id } from '../question/schema'
import { needWords } from '../people/needs'
import { duration } from '../kit/phrases'
import { look } from '../quiz/check/check'
import { removeFrom, setAt } from '../quiz/edits/make'
import { accommodationShape, type Accommodation } from '../quiz/accommodation'
import { choice, slot } from './pieces'
import type { Piece, Reading, Rule, Slot } from './rule'
import { whoSlot } from './window/classes'
import { whoWords } from './window/who'

/** What some are given for this quiz only. */
export interface QuizNeed extends Accommodation {
  id: string
  students: string[]
  groups: string[]
  /** In place of what they have otherwise; beside it without this, and the most generous counts. */
  instead: boolean
}

type Quantity = Exclude<keyof Accommodation, 'language'>

/** Each quantity: how it reads where it is given, its control, and the words of the link that gives it. */
const quantities: {
  name: Quantity
  title: string
  offer: string
  first: number | boolean
  none: number | boolean
  control: (need: QuizNeed) => Slot['control']
  words: (need: QuizNeed) => string
}[] = [
  {
    name: 'factor',
    title: 'Time factor',
    offer: 'more time by a factor',
    first: 1.5,
    none: 1,
    control: () => ({ sort: 'number', unit: 'times the time', min: 1, max: 5, step: 0.05 }),
    words: (need) => needWords({ ...need, stretchWindow: false })[0]!,
  },
  {
    name: 'extraMinutes',
    title: 'Extra minutes',
    offer: 'extra minutes',
    first: 10,
    none: 0,
    control: () => ({ sort: 'minutes', max: 600, step: 0.5, none: 'No extra minutes' }),
    words: ({ extraMinutes }) => `${duration(extraMinutes)} more`,
  },
  {
    name: 'breakMinutes',
    title: 'Breaks that stop the clock',
    offer: 'breaks',
    first: 15,
    none: 0,
    control: () => ({ sort: 'minutes', max: 600, step: 0.5, none: 'No breaks' }),
    words: ({ breakMinutes }) => `${duration(breakMinutes)} of breaks that stop the clock`,
  },
  {
    name: 'moreAttempts',
    title: 'More attempts',
    offer: 'more attempts',
    first: 1,
    none: 0,
    control: () => ({ sort: 'number', unit: 'attempts more', max: 20, step: 1 }),
    words: ({ moreAttempts }) => `${moreAttempts} more ${moreAttempts === 1 ? 'attempt' : 'attempts'}`,
  },
  {
    name: 'laterMinutes',
    title: 'Later end of windows',
    offer: 'a later end',
    first: 24 * 60,
    none: 0,
    control: () => ({ sort: 'minutes', max: 60 * 24 * 60, step: 5, none: 'No later' }),
    words: ({ laterMinutes }) => `windows that end ${duration(laterMinutes)} later`,
  },
  {
    name: 'largerType',
    title: 'Type',
    offer: 'larger type',
    first: true,
    none: false,
    control: () => ({
      sort: 'choice',
      options: [
        { value: true, label: 'larger type' },
        { value: false, label: 'usual type' },
      ],
    }),
    words: () => 'larger type',
  },
]

const path = (need: QuizNeed, name: keyof QuizNeed) => ['rules', 'needs', need.id, name]

/** "time and a half, 1 more attempt": each a slot. */
function givenPieces(need: QuizNeed): Piece[] {
  const given = quantities.filter(({ name, none }) => need[name] !== none)
  if (!given.length) return ['has nothing else yet']
  return given.flatMap(({ name, title, control, words }, i): Piece[] => [
    i === 0 ? 'has ' : i === given.length - 1 ? ' and ' : ', ',
    slot(title, path(need, name), need[name], words(need), control(need)),
    ...(name === 'factor' || (name === 'extraMinutes' && need.factor === 1)
      ? [
          ' ',
          choice('Past the window', path(need, 'stretchWindow'), need.stretchWindow, [
            { value: false, label: 'within the window' },
            { value: true, label: 'also past the window' },
          ]),
        ]
      : []),
  ])
}

function sentence(need: QuizNeed, { names, quiz }: Reading) {
  return {
    key: `need:${need.id}`,
    pieces: [
      'For this quiz ',
      whoSlot(['rules', 'needs', need.id], { groups: need.groups, students: need.students }, whoWords(need, names)),
      ' ',
      ...givenPieces(need),
      ', ',
      choice('Beside or in place', path(need, 'instead'), need.instead, [
        { value: false, label: 'beside what they have in every quiz' },
        { value: true, label: 'in place of what they have in every quiz' },
      ]),
      '. ',
      ...quantities
        .filter(({ name, none }) => need[name] === none)
        .map(({ name, offer, first }): Piece => ({ offer, edit: setAt(quiz, path(need, name), first) })),
      { offer: 'take out', edit: removeFrom(quiz, ['rules', 'needs'], [need.id]) },
    ],
  }
}

/** How one reads in the record. */
const read = (need: QuizNeed, { names }: Reading) =>
  `${whoWords(need, names)}: ${needWords(need, languageName).join(', ') || 'nothing'}${need.instead ? ', in place of the rest' : ''}`

/** Accommodations for this quiz only (semantics §5): for each quantity the most generous wins, unless one stands in place of the rest. */
export const needs: Rule<QuizNeed[]> = {
  title: 'for this quiz only',
  chapter: 'who',
  schema: z
    .array(
      z
        .strictObject({
          id,
          students: z.array(id).max(500),
          groups: z.array(id).max(60),
          instead: z.boolean(),
          ...accommodationShape,
        })
        .refine(
          ({ students, groups }) => students.length + groups.length > 0,
          'This is for at least one student or group.',
        ),
    )
    .max(200, 'At most 200 are given something for one quiz only.'),
  usual: [],
  sentences: (value, reading) => value.map((need) => sentence(need, reading)),
  told: (_value, { schedule }) =>
    schedule.breaks && schedule.limit !== null
      ? [`You may take breaks of ${duration(schedule.breaks)} in all: the clock stops, and the questions are covered.`]
      : [],
  checks: (value, quiz, { names }) =>
    value.flatMap((need) => {
      const out = { label: 'Take it out', edit: removeFrom(quiz, ['rules', 'needs'], [need.id]) }
      if ([...need.groups, ...need.students].every((each) => !names.has(each)))
        return [
          look(
            `need-gone:${need.id}`,
            'rules',
            'Given to somebody who is gone',
            'Whoever this was given to is not there any more.',
            out,
          ),
        ]
      return needWords(need).length || need.instead
        ? []
        : [
            look(
              `need-empty:${need.id}`,
              'rules',
              'An accommodation that changes nothing',
              `${whoWords(need, names)}: nothing is given for this quiz.`,
              out,
            ),
          ]
    }),
  words: (value, reading) => value.map((need) => read(need, reading)).join('; ') || 'nothing',
  changed(before, after, reading) {
    const was = new Map(before.map((need) => [need.id, read(need, reading)]))
    const now = new Map(after.map((need) => [need.id, read(need, reading)]))
    return [
      ...[...was].filter(([key]) => !now.has(key)).map(([, words]) => `for this quiz, taken out: ${words}`),
      ...[...now]
        .filter(([key, words]) => was.get(key) !== words)
        .map(([key, words]) =>
          was.has(key) ? `for this quiz: ${was.get(key)} → ${words}` : `for this quiz: ${words}`,
        ),
    ]
  },
}
/** One that gives nothing yet. */
export const blankNeed = (own: Pick<QuizNeed, 'id' | 'students' | 'groups'>, none: Accommodation): QuizNeed => ({
  ...none,
  ...own,
  instead: false,
})
