import { readFacets } from '../../../documents/read'
import { facetFilters, type Conditions, type FacetFilter, type SearchQuery } from './search-query'

/** What filters say beside each value: how many questions they would leave. */

/** What candidates are counted by. */
export interface Candidate {
  id: string
  kind: string
  difficulty: number
  folder: string | null
  objectives: string[]
  tags: string[]
  levels: string[]
  grade: string
}
export interface CandidateRow {
  id: string
  kind: string
  difficulty: number
  folder_id: string | null
  facets: string
}
export const candidateColumns = 'q.id, q.kind, q.difficulty, q.folder_id, q.facets'

/** By filter and value, of the questions that the other filters let through. */
export type FacetCounts = Record<FacetFilter, Record<string, number>>

/** A row of `candidateColumns` as what counting looks at. */
export function candidate(row: CandidateRow): Candidate {
  const { o, t, l, g } = readFacets(row.facets)
  return {
    id: row.id,
    kind: row.kind,
    difficulty: row.difficulty,
    folder: row.folder_id,
    objectives: o,
    tags: t,
    levels: l,
    grade: g,
  }
}

const valuesOf: Record<FacetFilter, (each: Candidate) => readonly string[]> = {
  kind: (each) => [each.kind],
  difficulty: (each) => [String(each.difficulty)],
  folder: (each) => (each.folder ? [each.folder] : []),
  objective: (each) => each.objectives,
  tag: (each) => each.tags,
  level: (each) => each.levels,
  grade: (each) => (each.grade ? [each.grade] : []),
}

/** What each filter that is set lets through: folders and objectives with all that lie under them. */
function wantedBy(query: SearchQuery, { wanted }: Conditions): [FacetFilter, ReadonlySet<string>][] {
  const asked: Record<FacetFilter, ReadonlySet<string>> = {
    kind: new Set(query.kind),
    difficulty: new Set(query.difficulty.map(String)),
    folder: query.folder.length ? wanted.folder : new Set(),
    objective: query.objective.length ? wanted.objective : new Set(),
    tag: new Set(query.tag),
    level: new Set(query.level),
    grade: new Set(query.grade.map((grade) => grade.toLowerCase())),
  }
  return facetFilters.filter((name) => query[name].length).map((name) => [name, asked[name]])
}

/**
 * A value of a filter counts a candidate that all other filters let through: one that fails none is counted by every
 * filter, one that fails a single filter by that one alone.
 */
export function countsOf(query: SearchQuery, conditions: Conditions, candidates: readonly Candidate[]): FacetCounts {
  const counts = Object.fromEntries(facetFilters.map((name) => [name, {}])) as FacetCounts
  const filters = wantedBy(query, conditions)
  const meets = (each: Candidate, name: FacetFilter, wanted: ReadonlySet<string>) =>
    valuesOf[name](each).some((value) => wanted.has(name === 'grade' ? value.toLowerCase() : value))
  const add = (name: FacetFilter, each: Candidate) => {
    for (const value of valuesOf[name](each)) counts[name][value] = (counts[name][value] ?? 0) + 1
  }
  for (const each of candidates) {
    const failed = filters.filter(([name, wanted]) => !meets(each, name, wanted))
    if (failed.length === 0) for (const name of facetFilters) add(name, each)
    else if (failed.length === 1) add(failed[0]![0], each)
  }
  return counts
}
