import type { z } from 'zod'
import type { Fraction } from '../../kit/exact'

/** What scoring says of one part of an answer, for the review. */
export interface PartScore {
  /** Authored id of the option, or the index of the accepted answer that was met. */
  part: string
  right: boolean
}

export interface Score {
  /** Share of the points, −1 to 1. */
  fraction: Fraction
  parts: PartScore[]
}

/** An option that may be permuted. */
export interface Movable { id: string, fixed: boolean }

/** On a paper: an option under its opaque id, in the order in which the student sees it. */
export interface PlacedOption { id: string, option: string }

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
  /** An empty body to begin writing with. */
  blank(): Q
  /** Sentences about what keeps the body from being marked; empty when all is well. */
  faults(body: Q): string[]
  /** Options that may change places, or none. */
  options(body: Q): Movable[]
  /** Scores an answer in authored ids. Called only for answers that are not empty. */
  score(body: Q, answer: R): Score
  isEmpty(answer: R): boolean
  /** The number k of options for formula scoring, or null where it does not apply (semantics §2). */
  guessable(body: Q): number | null
  /** What may leave the server before the key does: built from an allow-list. */
  seal(body: Q, placed: PlacedOption[]): SealedBody
  /** An answer in the paper's opaque ids, as one in authored ids. Unknown ids fall away. */
  open(answer: R, placed: PlacedOption[]): R
  /** An answer in authored ids as one in a paper's, for seeding and tests. */
  close(answer: R, placed: PlacedOption[]): R
  /** The key in words for people. */
  keyText(body: Q): string
  /** The answer in words for people. */
  answerText(body: Q, answer: R): string
  /** Comments that the answer earned, as HTML. */
  comments(body: Q, answer: R): string[]
  /** All texts of the body that people wrote, mapped: for cleaning and for rendering maths. */
  mapHtml(body: Q, map: (html: string) => string): Q
}

/** The student's form of a body. One shape a way of answering, shared by kinds that are answered alike. */
export type SealedBody =
  | { asks: 'one', options: { id: string, html: string }[] }
  | { asks: 'several', options: { id: string, html: string }[], exactly: number | null }
  | { asks: 'number', label: string, unit: string, style: 'point' | 'comma', unitAsked: boolean }
  | { asks: 'text', label: string, longest: number }

/** Placed in the authored order with ids of their own: for a preview, which has no paper. */
export function placedAsWritten(options: Movable[]): PlacedOption[] {
  return options.map(({ id }) => ({ id, option: id }))
}

