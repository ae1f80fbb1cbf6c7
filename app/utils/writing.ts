import type { KindName, Question } from '~~/core/question'

/** What is being written from within a quiz: a new question of a kind, or a change to one that is there. */
export type Writing =
  | {
      as: 'new'
      kind: KindName
      /** As the quiz suggests: objectives, points. */
      begins: Partial<Pick<Question, 'objectives' | 'points' | 'language'>>
      folder: string | null
    }
  | { as: 'change'; question: string }

/** The value that most have; null for none. */
export function mostCommon<T>(values: readonly T[]): T | null {
  const counts = new Map<T, number>()
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1)
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null
}
