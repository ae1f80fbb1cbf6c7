import { factsOf, type Facts } from './facts'
import type { Papers, Pool } from './papers'

export interface Coverage {
  objective: string
  atLeast: number
  atMost: number
}

/** How many of the n drawn out of N have a property that c of the N have (semantics §8). */
export function drawnBounds(n: number, N: number, c: number): { atLeast: number; atMost: number } {
  return { atLeast: Math.max(0, n - (N - c)), atMost: Math.min(n, c) }
}

/** The same of a pool: over the ways in which it may draw, each of its strata by itself. */
function poolBounds({ ways }: Pool, has: (question: string) => boolean): { atLeast: number; atMost: number } {
  const each = ways.map(({ draws }) =>
    draws
      .map(({ from, n }) => drawnBounds(n, from.length, from.filter(({ question }) => has(question)).length))
      .reduce((a, b) => ({ atLeast: a.atLeast + b.atLeast, atMost: a.atMost + b.atMost }), { atLeast: 0, atMost: 0 }),
  )
  return {
    atLeast: each.length ? Math.min(...each.map((way) => way.atLeast)) : 0,
    atMost: Math.max(0, ...each.map((way) => way.atMost)),
  }
}

/** How many questions on every paper have each objective, at least and at most; outer bounds where pools overlap. */
export function coverageOf({ fixed, pools }: Papers, facts: Facts): Coverage[] {
  const objectivesIn = (questions: { question: string }[]) =>
    questions.flatMap(({ question }) => [...new Set(factsOf(facts, question).objectives)])
  const totals = new Map<string, Coverage>()
  const add = (objective: string, atLeast: number, atMost: number) => {
    const before = totals.get(objective) ?? { objective, atLeast: 0, atMost: 0 }
    totals.set(objective, { objective, atLeast: before.atLeast + atLeast, atMost: before.atMost + atMost })
  }
  for (const objective of objectivesIn(fixed)) add(objective, 1, 1)
  for (const pool of pools)
    for (const objective of new Set(objectivesIn(pool.from))) {
      const { atLeast, atMost } = poolBounds(pool, (question) =>
        factsOf(facts, question).objectives.includes(objective),
      )
      add(objective, atLeast, atMost)
    }
  return [...totals.values()].sort((a, b) => (a.objective < b.objective ? -1 : 1))
}
