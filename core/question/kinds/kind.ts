import type { z } from 'zod'
import type { Fraction } from '../../kit/exact'
import type { Chances } from '../../kit/chances'
import type { SealedBody } from './sealed'

export type { SealedBody } from './sealed'

/** What scoring says of one part of an answer, for the review. */
export interface PartScore {
  /** Authored id of the option, item or gap, or the index of the accepted answer that was met. */
  part: string
  right: boolean
}

export interface Score {
  /** Share of the points, −1 to 1. */
  fraction: Fraction
  parts: PartScore[]
}

/** Something that may be permuted on a paper: an option, an item, a gap. */
export interface Movable {
  id: string
  fixed: boolean
  /** Members of one list change places among themselves only. */
  list?: string
  /** Permuted whatever the quiz says: orderings and matchings start shuffled (semantics §4.6). */
  always?: boolean
}

/** On a paper: an option under its opaque id, in the order in which the student sees it. */
export interface PlacedOption {
  id: string
  option: string
}

/** Maps one text that people wrote. The key names its place in the body and stays the same while the question is edited. */
export type MapHtml = (html: string, key: string) => string

/**
 * What one kind of question knows. One file a kind; `kinds/index.ts` lists them.
 * Q is the kind's body (what the author writes), R an answer to it.
 */
export interface Kind<Q, R> {
  name: string
  /** As people read it: "Choice". */
  label: string
  body: z.ZodType<Q>
  answer: z.ZodType<R>
  /** Marked by people: `score` is never asked, and a mark is missing until somebody gives it. */
  byHand?: true
  /** Its body alone says what is asked. */
  stemOptional?: true
  /** An empty body to begin writing with. */
  blank(): Q
  /** Sentences about what keeps the body from being marked; empty when all is well. */
  faults(body: Q): string[]
  /** What keeps the body from being asked where it has no key; absent where a kind cannot be asked without one. */
  keylessFaults?(body: Q): string[]
  /** What may change places, or none. */
  options(body: Q): Movable[]
  /** Scores an answer in authored ids. Called only for answers that are not empty. */
  score(body: Q, answer: R): Score
  isEmpty(answer: R): boolean
  /** What is more than this question takes, in a sentence; null for nothing. What is over is not scored either. */
  excess?(body: Q, answer: R): string | null
  /** The number k of options for formula scoring, or null where it does not apply (semantics §2). */
  guessable(body: Q): number | null
  /**
   * The share of the points that somebody earns who answers without knowing: uniform over the complete answers that are
   * permitted; what is typed or written earns nothing (semantics §8).
   */
  guesses(body: Q): Chances
  /** What may leave the server before the key does: built from an allow-list. */
  seal(body: Q, placed: PlacedOption[]): SealedBody
  /** An answer in the paper's opaque ids, as one in authored ids. Unknown ids fall away. */
  open(answer: R, placed: PlacedOption[]): R
  /** An answer in authored ids as one in a paper's: for showing a key on a paper, for seeding and tests. */
  close(answer: R, placed: PlacedOption[]): R
  /** An answer that earns full credit, in authored ids; null where people decide. */
  solution(body: Q): R | null
  /** The key in words for people. */
  keyText(body: Q): string
  /** The answer in words for people. */
  answerText(body: Q, answer: R): string
  /** Comments that the answer earned, as HTML. */
  comments(body: Q, answer: R): string[]
  /** All texts of the body that people wrote, mapped: for cleaning, for rendering maths, for translating. */
  mapHtml(body: Q, map: MapHtml): Q
}

/** Placed in the authored order with ids of their own: for a preview, which has no paper. */
export function placedAsWritten(options: Movable[]): PlacedOption[] {
  return options.map(({ id }) => ({ id, option: id }))
}
