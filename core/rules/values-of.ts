import type { z } from 'zod'
import type { ValuesOf } from './rule'

interface Kept {
  schema: z.ZodType
  usual: unknown
  complete?(stored: unknown): unknown
}
type Registry = Record<string, Kept>

/** The schemas of a registry of rules, by their names. */
export function schemasOf<L extends Registry>(rules: L): { [K in keyof L]: L[K]['schema'] } {
  return Object.fromEntries(Object.entries(rules).map(([name, rule]) => [name, rule.schema])) as {
    [K in keyof L]: L[K]['schema']
  }
}

/** The usual values of a registry of rules. */
export function usualOf<L extends Registry>(rules: L): ValuesOf<L> {
  return Object.fromEntries(Object.entries(rules).map(([name, rule]) => [name, rule.usual])) as ValuesOf<L>
}

const isNode = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/**
 * Today's values of a registry of rules out of a stored object: each by its own `complete`, with the usual value where
 * one is missing, and parts that a rule got later from its usual value. Names that are no rule are left out.
 */
export function valuesIn(rules: Registry, stored: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(rules).map(([name, { usual, complete }]) => {
      const value = stored[name]
      if (value === undefined) return [name, usual]
      if (complete) return [name, complete(value)]
      return [name, isNode(usual) && isNode(value) && !('by' in usual) ? { ...usual, ...value } : value]
    }),
  )
}
