import type { XmlElement } from '../xml'
import { words, type Node } from './nodes'
import type { Entry } from './options'

export interface ListPart {
  is: 'list'
  entries: Entry[]
  numbered: boolean
  node: XmlElement
  /** Its options were typed as lines: A) …, B) … */
  lettered: boolean
}
export type Part =
  | ListPart
  | { is: 'table'; node: XmlElement }
  | { is: 'words'; node: Node }
  /** A quotation, or an explanation of the answer. */
  | { is: 'quote'; node: XmlElement }

/** A question while its parts are collected. */
export interface Draft {
  parts: Part[]
  /** Its own number in the text. */
  number: number | null
  /** What its key line says. */
  key: string | null
  /** The key line begins with "=". */
  sign: boolean
  /** How many parts stand before the key. */
  keyAt: number
  /** Why it cannot be read. */
  problem: string | null
  notes: Set<string>
  folder: string[]
  line: number | null
  /** Counts the stretches between separators. */
  group: number
}

export const emptyDraft = (folder: string[], group: number): Draft => ({
  parts: [],
  number: null,
  key: null,
  sign: false,
  keyAt: 0,
  problem: null,
  notes: new Set(),
  folder,
  line: null,
  group,
})

export const isMarked = ({ entries }: ListPart): boolean => entries.some(({ mark }) => mark !== null)
export const isAnswered = ({ key, parts }: Draft): boolean =>
  key !== null || parts.some((part) => part.is === 'list' && isMarked(part))
export const hasList = ({ parts }: Draft): boolean => parts.some(({ is }) => is === 'list')

/** Whether the words of a question ask for something (asked-for.ts). */
export const asksFor = (parts: readonly Part[], asks: (words: string) => boolean): boolean =>
  asks(parts.flatMap((part) => (part.is === 'words' ? [words(part.node)] : [])).join('\n'))

export const secondAnswer = (line: number | null): string =>
  `${line === null ? 'A' : `Line ${line}: a`} second answer to the same question is left out. Put --- between two questions.`
