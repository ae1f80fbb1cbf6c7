import { defineAsyncComponent, type Component } from 'vue'
import type { SealedBody } from '~~/core/question/kinds/sealed'
import type { Response } from './response'
import ChoiceField from './ChoiceField.vue'
import LineField from './LineField.vue'
import WrittenField from './WrittenField.vue'

/** What a field is given, beside the body: the answer, and how it stands on the page. */
export interface FieldContext {
  answer: Response | null
  /** Unique on the page: groups the radio buttons, names the fields. */
  name: string
  labelledby: string
  readonly: boolean
  /** Options shown as right, where the key may be seen. */
  right: string[]
  struck: string[]
  language: string | undefined
}

/** How one way of asking is answered: its field, what of the context it takes, what it says, and the answer that this makes. */
interface Field {
  is: Component
  /** Loads what few papers need; a sitting loads all of its own when it opens, so that nothing is missing offline. */
  load?: () => Promise<unknown>
  takes(context: FieldContext): Record<string, unknown>
  /** The event by which the field says what was answered, and the answer that it makes; a field may keep its answer by itself. */
  says?: string
  answer?(said: never): Response | null
}

const lazy = (load: () => Promise<{ default: Component }>) => ({ is: defineAsyncComponent(load), load })
const chosen = (said: string[]): Response | null => (said.length ? { chosen: said } : null)
const written = (said: string): Response | null => (said === '' ? null : { text: said })
const place = ({ name, labelledby, readonly }: FieldContext) => ({ name, labelledby, readonly })
const unnamed = ({ labelledby, readonly }: FieldContext) => ({ labelledby, readonly })

const choosing: Field = {
  is: ChoiceField,
  takes: (context) => ({
    ...place(context),
    chosen: context.answer?.chosen ?? [],
    right: context.right,
    struck: context.struck,
  }),
  says: 'choose',
  answer: chosen,
}
const line: Field = {
  is: LineField,
  takes: ({ answer, name, readonly, language }) => ({ name, readonly, language, text: answer?.text ?? '' }),
  says: 'write',
  answer: written,
}

/** By way of asking. */
export const fields: Record<SealedBody['asks'], Field> = {
  one: choosing,
  several: choosing,
  number: line,
  text: line,
  gaps: {
    ...lazy(() => import('./GapsField.vue')),
    takes: (context) => ({ ...place(context), language: context.language, gaps: context.answer?.gaps ?? {} }),
    says: 'fill',
    answer: (said: Record<string, string>) => (Object.keys(said).length ? { gaps: said } : null),
  },
  pairs: {
    ...lazy(() => import('./PairsField.vue')),
    takes: (context) => ({ ...place(context), pairs: context.answer?.pairs ?? {} }),
    says: 'pair',
    answer: (said: Record<string, string>) => (Object.keys(said).length ? { pairs: said } : null),
  },
  grid: {
    ...lazy(() => import('./GridField.vue')),
    takes: (context) => ({ ...place(context), ticks: context.answer?.ticks ?? {} }),
    says: 'tick',
    answer: (said: Record<string, string[]>) => (Object.keys(said).length ? { ticks: said } : null),
  },
  order: {
    ...lazy(() => import('./OrderField.vue')),
    takes: (context) => ({ ...unnamed(context), order: context.answer?.order ?? null }),
    says: 'arrange',
    answer: (said: string[] | null) => said && { order: said },
  },
  spot: {
    ...lazy(() => import('./SpotField.vue')),
    takes: (context) => ({ ...unnamed(context), points: context.answer?.points ?? [] }),
    says: 'mark',
    answer: (said: NonNullable<Response['points']>) => (said.length ? { points: said } : null),
  },
  places: {
    ...lazy(() => import('./PlacesField.vue')),
    takes: (context) => ({ ...place(context), right: context.right, chosen: context.answer?.chosen ?? [] }),
    says: 'choose',
    answer: chosen,
  },
  written: {
    is: WrittenField,
    takes: (context) => ({ ...place(context), language: context.language, text: context.answer?.text ?? '' }),
    says: 'write',
    answer: written,
  },
  recording: {
    ...lazy(() => import('./RecordingField.vue')),
    takes: (context) => ({ ...unnamed(context), answer: context.answer }),
  },
}
export const tools = () => import('./QuestionTools.vue')
export const marks = () => import('./OwnMarks.vue')
export const measure = () => import('./MeasureTool.vue')
export const help = () => import('./QuestionHelp.vue')

/** Loads the fields that ways of asking need. */
export async function loadFields(asked: Iterable<SealedBody['asks']>): Promise<void> {
  await Promise.all([...new Set(asked)].map((asks) => fields[asks].load?.()))
}
