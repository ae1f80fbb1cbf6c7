import { recording, short, written } from './by-hand'
import { choice } from './choice'
import { choices } from './choices'
import { gaps } from './gaps'
import type { Kind } from './kind'
import { number } from './number'
import { ordering } from './ordering'
import { matching, sorting } from './pairs'
import { grid } from './grid'
import { spot } from './spot'
import { text } from './text'
import { trueFalse, yesNo } from './true-false'

/** Every kind of question, by name, in the order in which people are offered them. */
export const kinds = {
  choice,
  choices,
  trueFalse,
  yesNo,
  number,
  text,
  gaps,
  matching,
  sorting,
  grid,
  ordering,
  spot,
  written,
  short,
  recording,
} as const

export type KindName = keyof typeof kinds
export const kindNames = Object.keys(kinds) as [KindName, ...KindName[]]
/** Kinds as people read them. */
export const kindLabels = Object.fromEntries(kindNames.map((name) => [name, kinds[name].label])) as Record<
  KindName,
  string
>

/** The body of a kind. */
export type BodyOf<K extends KindName> = (typeof kinds)[K] extends Kind<infer Q, infer _R> ? Q : never

/**
 * The kind of a question, with its types folded away: callers hold a question whose schema has matched body and
 * kind already, which the compiler cannot follow through a table.
 */
export function kindOf(name: KindName): Kind<unknown, unknown> {
  return kinds[name] as unknown as Kind<unknown, unknown>
}

export type { Kind, MapHtml, PlacedOption, SealedBody, Score } from './kind'
