import type { Node } from './nodes'

/** A block of a text, as its reader hands it over. */
export type Block =
  | { is: 'node'; node: Node; line?: number; notes?: string[] }
  /** Names a folder. */
  | { is: 'heading'; depth: number; words: string }
  /** Separates questions. */
  | { is: 'end' }
  /** Could not be read. */
  | { is: 'broken'; problem: string; line?: number }

export interface Reading {
  /** Line breaks count, and a list without a key may be part of the question (Markdown, where --- separates questions). */
  plainText: boolean
  /** Options without a key are accepted as a choice without one: the author goes on writing. */
  mayBeOpen: boolean
}
