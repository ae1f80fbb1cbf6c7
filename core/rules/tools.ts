import { z } from 'zod'
import { list } from '../kit/phrases'
import { choice } from './pieces'
import type { Rule, Slot } from './rule'

const calculators = ['none', 'plain', 'scientific'] as const
/** What students have at hand while they sit a paper. A question may bring a calculator of its own as well. */
export interface Tools {
  calculator: (typeof calculators)[number]
  /** Ruler and protractor that lie over pictures. */
  ruler: boolean
  /** Notes of their own on each question. */
  notes: boolean
  /** Marking words of what is asked. */
  highlight: boolean
  /** Striking options out. */
  strike: boolean
  /** Marking a question to come back to. */
  flags: boolean
}

const calculatorWords = { none: 'no calculator', plain: 'a plain calculator', scientific: 'a scientific calculator' }
const path = (name: keyof Tools) => ['rules', 'tools', name]
const switches: { name: Exclude<keyof Tools, 'calculator'>; title: string; yes: string; no: string }[] = [
  { name: 'ruler', title: 'Ruler and protractor', yes: 'ruler and protractor', no: 'no ruler' },
  { name: 'notes', title: 'Notes', yes: 'notes of their own', no: 'no notes' },
  { name: 'highlight', title: 'Highlighting', yes: 'highlighting', no: 'no highlighting' },
  { name: 'strike', title: 'Striking out', yes: 'striking options out', no: 'no striking out' },
  { name: 'flags', title: 'Come back to this', yes: 'marks to come back to', no: 'no marks to come back to' },
]

function words(value: Tools): string {
  const has = switches.filter(({ name }) => value[name]).map(({ yes }) => yes)
  return list([...(value.calculator === 'none' ? [] : [calculatorWords[value.calculator]]), ...has]) || 'no tools'
}

const calculatorSlot = ({ calculator }: Tools, text: string): Slot => ({
  ...choice(
    'Calculator',
    path('calculator'),
    calculator,
    calculators.map((each) => ({ value: each, label: calculatorWords[each] })),
    text,
  ),
  name: 'Tools',
})
const also = (value: Tools): Slot[] =>
  switches.map(({ name, title, yes, no }) =>
    choice(title, path(name), value[name], [
      { value: true, label: yes },
      { value: false, label: no },
    ]),
  )

export const tools: Rule<Tools> = {
  title: 'tools',
  chapter: 'page',
  schema: z.strictObject({
    calculator: z.enum(calculators),
    ruler: z.boolean(),
    notes: z.boolean(),
    highlight: z.boolean(),
    strike: z.boolean(),
    flags: z.boolean(),
  }),
  usual: { calculator: 'none', ruler: false, notes: false, highlight: false, strike: true, flags: true },
  // One control for all: what they have not is not in the sentence.
  sentences: (value) => [
    {
      key: 'tools',
      pieces: ['At hand they have ', { ...calculatorSlot(value, words(value)), also: also(value) }, '.'],
    },
  ],
  told: (value) => {
    const given = [
      ...(value.calculator === 'none' ? [] : [calculatorWords[value.calculator]]),
      ...(value.ruler ? ['a ruler and a protractor'] : []),
      ...(value.notes ? ['notes of your own'] : []),
    ]
    return given.length ? [`On the page you have ${list(given)}.`] : []
  },
  words,
}
