import { fits, type Candidate, type Cell } from './schema'

/** How many questions of one sort a part of the bank holds: enough to say at once what a line would find. */
export interface Sort {
  kind: Candidate['kind']
  difficulty: number
  objectives: readonly string[]
  levels: readonly string[]
  n: number
}

/** Those of one sort together; the most frequent first. */
export function sortsOf(some: readonly Sort[]): Sort[] {
  const sorts = new Map<string, Sort>()
  for (const { kind, difficulty, objectives, levels, n } of some) {
    const key = `${kind}|${difficulty}|${objectives.join()}|${levels.join()}`
    const known = sorts.get(key)
    if (known) known.n += n
    else sorts.set(key, { kind, difficulty, objectives, levels, n })
  }
  return [...sorts.values()].sort((a, b) => b.n - a.n)
}

/** How many of them belong into a line. */
export const held = (cell: Cell, sorts: readonly Sort[]): number =>
  sorts.reduce((all, sort) => all + (fits(cell, sort) ? sort.n : 0), 0)
