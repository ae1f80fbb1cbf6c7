import { choice } from './choice'
import { choices } from './choices'
import type { Kind } from './kind'
import { number } from './number'
import { text } from './text'
import { trueFalse } from './true-false'

/** Every kind of question, by name, in the order in which people are offered them. */
export const kinds = { choice, choices, trueFalse, number, text } as const

export type KindName = keyof typeof kinds
export const kindNames = Object.keys(kinds) as [KindName, ...KindName[]]

/**
 * The kind of a question, with its types folded away: callers hold a question whose schema has matched body and
 * kind already, which the compiler cannot follow through a table.
 */
export function kindOf(name: KindName): Kind<unknown, unknown> {
  return kinds[name] as unknown as Kind<unknown, unknown>
}

export type { Kind, PlacedOption, SealedBody, Score } from './kind'
