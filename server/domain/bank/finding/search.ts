import type { Instant } from '../../../../core/kit/time'
import type { Db, Value } from '../../../database/database'
import type { Person } from '../../../people/people'
import { hitsFor, type Hit } from './hits'
import {
  candidate,
  candidateColumns,
  countsOf,
  type Candidate,
  type CandidateRow,
  type FacetCounts,
} from './search-counts'
import { visibleTo } from './visible'
import { conditionsOf, facetFilters, joined, type Conditions, type Entries, type SearchQuery } from './search-query'

export { searchQuery, type SearchQuery } from './search-query'

export interface SearchResult {
  /** Exact up to `cap`, which then stands for "and more". */
  total: number
  cap: number
  hits: Hit[]
  /** By filter and value, of the questions that the other filters let through. */
  counts: FacetCounts
  /** The counts are those among some of the newest: there are at least so many. */
  sampled: boolean
}

/** Counting stops here: "1000+" says enough, and keeps a search in a large bank quick. */
export const cap = 1000
/** A search begins with the condition that has fewest entries, if one has about so many at most: they are read in one go. */
const few = 40_000
/** Counts are those among so many, where there are more. */
const sample = 800

/** Looked up row by row, with an end as soon as there are enough: MariaDB would otherwise gather all that a frequent word stands in first. */
const rowByRow = "SET STATEMENT optimizer_switch = 'semijoin=off,materialization=off,subquery_cache=off' FOR"

/** A condition with the filters that its entries carry. */
function within(each: Entries, query: SearchQuery): { sql: string; values: Value[] } {
  return {
    sql: `${each.sql}${query.kind.length ? ' AND w.kind IN (?)' : ''}${query.difficulty.length ? ' AND w.difficulty IN (?)' : ''}`,
    values: [
      ...each.values,
      ...(query.kind.length ? [query.kind] : []),
      ...(query.difficulty.length ? [query.difficulty] : []),
    ],
  }
}

/** The condition that a search begins with, and about how many entries it has. */
interface First {
  entries: Entries
  about: number
}

/** The condition with fewest entries, if those are few: as the index estimates them, which takes no time. */
async function rarest(db: Db, { entries, kinds }: Conditions): Promise<First | null> {
  const estimated = await Promise.all(
    [...entries, ...kinds].map(async (each): Promise<First> => {
      const plan = await db.one<{ rows: string | number }>(
        `EXPLAIN SELECT 1 FROM question_word w WHERE ${each.sql}`,
        each.values,
      )
      return { entries: each, about: Number(plan?.rows ?? 0) }
    }),
  )
  const [least] = estimated.sort((a, b) => a.about - b.about)
  return least && least.about <= few ? least : null
}

const isFacet = (name: string) => (facetFilters as readonly string[]).includes(name)

interface Found {
  id: string
  changed_at: string
}
const newest = (a: Found, b: Found) =>
  a.changed_at === b.changed_at ? (a.id < b.id ? 1 : -1) : a.changed_at < b.changed_at ? 1 : -1

/** Questions that match, up to a limit: without it one more than are counted. */
function findAll(
  db: Db,
  query: SearchQuery,
  { plain, entries }: Conditions,
  first: First | null,
  limit = cap + 1,
): Promise<Found[]> {
  if (!first) {
    const all = joined(plain, entries)
    return db.rows<Found>(
      `${rowByRow} SELECT q.id, q.changed_at FROM question q WHERE ${all.sql} LIMIT ${limit}`,
      all.values,
    )
  }
  const [driver, rest] = [
    within(first.entries, query),
    joined(
      plain,
      entries.filter((each) => each !== first.entries),
    ),
  ]
  return db.rows<Found>(
    `${rowByRow} SELECT STRAIGHT_JOIN q.id, q.changed_at FROM (SELECT DISTINCT w.question_id FROM question_word w WHERE ${driver.sql}) f JOIN question q ON q.id = f.question_id WHERE ${rest.sql} LIMIT ${limit}`,
    [...driver.values, ...rest.values],
  )
}

/** What facets are counted among: questions that pass all that is no facet, from the rarest word if there is one, else the newest. */
async function candidatesFor(
  db: Db,
  person: Person,
  conditions: Conditions,
  first: First | null,
): Promise<{ candidates: Candidate[]; sampled: boolean }> {
  const from = first && !isFacet(first.entries.name) ? first.entries : null
  // Where about so few are expected, all of them are read.
  const sampled = from
    ? first!.about > sample
    : (await db.rows('SELECT 1 AS yes FROM question WHERE school_id = ? LIMIT ?', [person.school, sample + 1])).length >
      sample
  const limit = sampled ? ` LIMIT ${sample}` : ''
  const open = joined(
    conditions.plain.filter((each) => !isFacet(each.name)),
    conditions.entries.filter((each) => each !== from && !isFacet(each.name)),
  )
  const [source, values]: [string, Value[]] = from
    ? [`SELECT DISTINCT w.question_id AS id FROM question_word w WHERE ${from.sql}${limit}`, from.values]
    : [
        `SELECT id FROM question FORCE INDEX (question_recent) WHERE school_id = ? ORDER BY changed_at DESC, id DESC${limit}`,
        [person.school],
      ]
  const rows = await db.rows<CandidateRow>(
    `${rowByRow} SELECT STRAIGHT_JOIN ${candidateColumns} FROM (${source}) n JOIN question q ON q.id = n.id WHERE ${open.sql}`,
    [...values, ...open.values],
  )
  return { candidates: rows.map(candidate), sampled }
}

/** A page of the newest that match, where there are more than are sorted at once: walked until the page is full. */
async function walk(db: Db, query: SearchQuery, { plain, entries }: Conditions): Promise<{ id: string }[]> {
  const all = joined(plain, entries)
  return db.rows<{ id: string }>(
    `${rowByRow} SELECT q.id FROM question q FORCE INDEX (question_recent) WHERE ${all.sql} ORDER BY q.changed_at DESC, q.id DESC LIMIT ? OFFSET ?`,
    [...all.values, query.take, query.from],
  )
}

/** The page that is asked for, of all that was found; newest first. */
const pageOf = async (db: Db, query: SearchQuery, conditions: Conditions, found: Found[]): Promise<{ id: string }[]> =>
  found.length <= cap ? found.sort(newest).slice(query.from, query.from + query.take) : walk(db, query, conditions)

/** Ids of the newest questions that match, without counting anything. */
export async function firstFound(db: Db, person: Person, query: SearchQuery): Promise<string[]> {
  const conditions = await conditionsOf(db, person, query, null)
  const found = await findAll(db, query, conditions, await rarest(db, conditions))
  return (await pageOf(db, query, conditions, found)).map(({ id }) => id)
}

/** Searches by beginnings of words (all of them) and filters; newest first. @param now with it, outside banks that are granted then are searched as well */
export async function searchQuestions(
  db: Db,
  person: Person,
  query: SearchQuery,
  now: Instant | null = null,
): Promise<SearchResult> {
  const conditions = await conditionsOf(db, person, query, now)
  const first = await rarest(db, conditions)
  const [found, { candidates, sampled }] = await Promise.all([
    findAll(db, query, conditions, first),
    query.from ? { candidates: [], sampled: true } : candidatesFor(db, person, conditions, first),
  ])
  const page = await pageOf(db, query, conditions, found)
  const hits = await hitsFor(
    db,
    person,
    page.map((row) => row.id),
  )
  return { total: found.length, cap, hits, counts: countsOf(query, conditions, candidates), sampled }
}

/**
 * Ids of the questions that match, in their order; of too many the first.
 * @param seenBy others, who have to be able to see them as well
 * @param further conditions on questions `q`
 * @param most so many at most
 */
export async function idsMatching(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  query: SearchQuery,
  {
    seenBy,
    further,
    most,
  }: { seenBy: readonly string[]; further: readonly { sql: string; values: Value[] }[]; most: number },
): Promise<string[]> {
  const found = await conditionsOf(db, person, query, null)
  const conditions = {
    ...found,
    plain: [
      ...found.plain,
      ...seenBy.map((id) => ({ name: 'rest' as const, ...visibleTo({ id, school: person.school }) })),
      ...further.map((each) => ({ name: 'rest' as const, ...each })),
    ],
  }
  const rows = await findAll(db, query, conditions, await rarest(db, conditions), most + 1)
  if (rows.length <= most) return rows.map(({ id }) => id).sort()
  // Of more than that the same are taken each time, however the database would find them.
  const all = joined(conditions.plain, conditions.entries)
  const first = await db.rows<Pick<Found, 'id'>>(
    `${rowByRow} SELECT q.id FROM question q WHERE ${all.sql} ORDER BY q.id LIMIT ?`,
    [...all.values, most],
  )
  return first.map(({ id }) => id)
}
