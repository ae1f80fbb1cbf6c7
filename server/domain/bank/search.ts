import type { Instant } from '../../../core/kit/time'
import type { KindName } from '../../../core/question'
import { fromJson, fromSql } from '../../database/codec'
import type { Db, Value } from '../../database/database'
import { grouped } from '../grouped'
import type { Person } from '../people/people'
import type { QuestionState } from './question-rows'
import {
  conditionsOf,
  facetFilters,
  joined,
  type Conditions,
  type Entries,
  type FacetFilter,
  type SearchQuery,
} from './search-query'

export { searchQuery, type SearchQuery } from './search-query'

export interface Hit {
  id: string
  version: number
  state: QuestionState
  kind: KindName
  title: string
  internalName: string
  key: string
  points: number
  seconds: number
  difficulty: number
  objectives: string[]
  changedAt: Instant
  folder: string | null
  tags: string[]
  source: string
  language: string
  owner: string
  sharing: 'school' | 'named' | 'private' | 'outside'
  /** Of a bank that somebody else keeps: whose, how many schools have chosen it, and the school's own copy. */
  origin: { bank: string; chosen: number; copy: string | null } | null
  /** What it shares with other questions. */
  stimulus: string | null
  /** Colleagues who say that something is wrong. */
  doubts: number
  /** Share of answers that were right, with how many there were; null before anybody has answered. */
  right: { share: number; n: number } | null
  /** Quizzes that hold it, and when one was last opened. */
  used: number
  lastUsedAt: Instant | null
}

export interface SearchResult {
  /** Exact up to `cap`, which then stands for "and more". */
  total: number
  cap: number
  hits: Hit[]
  /** By filter and value, of the questions that the other filters let through. */
  counts: Record<FacetFilter, Record<string, number>>
  /** The counts are those among some of the newest: there are at least so many. */
  sampled: boolean
}

/** Counting stops here: "1000+" says enough, and keeps a search in a large bank quick. */
export const cap = 1000
/** A search begins with the condition that has fewest entries, if one has about so many at most: they are read in one go. */
const few = 40_000
/** Counts are those among so many, where there are more. */
const sample = 800

/** What candidates are counted by. */
interface Candidate {
  id: string
  kind: string
  difficulty: number
  folder: string | null
  objectives: string[]
  tags: string[]
  levels: string[]
  grade: string
}
interface CandidateRow {
  id: string
  kind: string
  difficulty: number
  folder_id: string | null
  facets: string
}
const candidateColumns = 'q.id, q.kind, q.difficulty, q.folder_id, q.facets'

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

const candidate = (row: CandidateRow): Candidate => {
  const { o, t, l = [], g = '' } = fromJson<{ o: string[]; t: string[]; l?: string[]; g?: string }>(row.facets)
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

/** Whether a candidate passes the filters that facets count, but for one of them. */
function passes(query: SearchQuery, { wanted }: Conditions, each: Candidate, without?: FacetFilter): boolean {
  const meets: Record<FacetFilter, () => boolean> = {
    kind: () => !query.kind.length || (query.kind as string[]).includes(each.kind),
    difficulty: () => !query.difficulty.length || query.difficulty.includes(each.difficulty),
    folder: () => !query.folder.length || (each.folder !== null && wanted.folder.has(each.folder)),
    objective: () => !query.objective.length || each.objectives.some((id) => wanted.objective.has(id)),
    tag: () => !query.tag.length || each.tags.some((tag) => query.tag.includes(tag)),
    level: () => !query.level.length || each.levels.some((level) => query.level.includes(level)),
    grade: () => !query.grade.length || query.grade.some((grade) => grade.toLowerCase() === each.grade.toLowerCase()),
  }
  return facetFilters.every((name) => name === without || meets[name]())
}

function countsOf(
  query: SearchQuery,
  conditions: Conditions,
  candidates: readonly Candidate[],
): SearchResult['counts'] {
  const valuesOf: Record<FacetFilter, (each: Candidate) => string[]> = {
    kind: (each) => [each.kind],
    difficulty: (each) => [String(each.difficulty)],
    folder: (each) => (each.folder ? [each.folder] : []),
    objective: (each) => each.objectives,
    tag: (each) => each.tags,
    level: (each) => each.levels,
    grade: (each) => (each.grade ? [each.grade] : []),
  }
  return Object.fromEntries(
    facetFilters.map((name) => {
      const counts: Record<string, number> = {}
      for (const each of candidates)
        if (passes(query, conditions, each, name))
          for (const value of valuesOf[name](each)) counts[value] = (counts[value] ?? 0) + 1
      return [name, counts]
    }),
  ) as SearchResult['counts']
}

const isFacet = (name: string) => (facetFilters as readonly string[]).includes(name)

interface Found {
  id: string
  changed_at: string
}
const newest = (a: Found, b: Found) =>
  a.changed_at === b.changed_at ? (a.id < b.id ? 1 : -1) : a.changed_at < b.changed_at ? 1 : -1

/** Up to `cap` of the questions that match, and one more where there are more. */
function findAll(db: Db, query: SearchQuery, { plain, entries }: Conditions, first: First | null): Promise<Found[]> {
  if (!first) {
    const all = joined(plain, entries)
    return db.rows<Found>(
      `${rowByRow} SELECT q.id, q.changed_at FROM question q WHERE ${all.sql} LIMIT ${cap + 1}`,
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
    `${rowByRow} SELECT STRAIGHT_JOIN q.id, q.changed_at FROM (SELECT DISTINCT w.question_id FROM question_word w WHERE ${driver.sql}) f JOIN question q ON q.id = f.question_id WHERE ${rest.sql} LIMIT ${cap + 1}`,
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

interface HitRow {
  id: string
  version: number
  state: QuestionState
  kind: KindName
  title: string
  internal_name: string
  key_text: string
  points: string
  seconds: number
  difficulty: number
  changed_at: string
  folder_id: string | null
  source: string
  language: string
  owner: string
  sharing: Hit['sharing']
  stimulus_id: string | null
  bank: string | null
  chosen: number
  copy: string | null
  doubts: number
  last_used_at: string | null
}
const hitColumns =
  'q.id, q.version, q.state, q.kind, q.title, q.internal_name, q.key_text, q.points, q.seconds, q.difficulty, q.changed_at, q.folder_id, q.source, q.language, p.name AS owner, q.sharing, q.stimulus_id, b.name AS bank, q.chosen, c.question_id AS copy, q.doubts, q.last_used_at'

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
  const page =
    found.length <= cap
      ? found.sort(newest).slice(query.from, query.from + query.take)
      : await walk(db, query, conditions)
  const hits = await hitsFor(
    db,
    person,
    page.map((row) => row.id),
  )
  return { total: found.length, cap, hits, counts: countsOf(query, conditions, candidates), sampled }
}

/** Given questions as hits, in the order asked for: for a running order that shows what it holds. */
export async function hitsFor(db: Db, person: Person, ids: readonly string[]): Promise<Hit[]> {
  if (!ids.length) return []
  const hits = await withUse(
    db,
    await db.rows<HitRow>(
      `SELECT ${hitColumns} FROM question q JOIN person p ON p.id = q.owner_id LEFT JOIN outside_bank b ON b.id = q.origin_bank LEFT JOIN question_copy c ON c.of_id = q.id WHERE q.id IN (?) AND q.school_id = ?`,
      [ids, person.school],
    ),
  )
  const place = new Map(ids.map((id, i) => [id, i]))
  return hits.sort((a, b) => place.get(a.id)! - place.get(b.id)!)
}

async function withUse(db: Db, rows: HitRow[]): Promise<Hit[]> {
  if (!rows.length) return []
  const ids = rows.map((row) => row.id)
  const [objectives, tags, right, used] = await Promise.all([
    db.rows<{ question_id: string; objective_id: string }>(
      'SELECT question_id, objective_id FROM question_objective WHERE question_id IN (?) ORDER BY position',
      [ids],
    ),
    db.rows<{ question_id: string; tag: string }>(
      'SELECT question_id, tag FROM question_tag WHERE question_id IN (?) ORDER BY tag',
      [ids],
    ),
    db.rows<{ question_id: string; n: number; share: string }>(
      'SELECT question_id, COUNT(fraction_rounded) AS n, AVG(GREATEST(fraction_rounded, 0)) AS share FROM mark WHERE question_id IN (?) AND fraction_rounded IS NOT NULL GROUP BY question_id',
      [ids],
    ),
    db.rows<{ question_id: string; n: number }>(
      'SELECT question_id, COUNT(*) AS n FROM quiz_question WHERE question_id IN (?) GROUP BY question_id',
      [ids],
    ),
  ])
  const [objectivesOf, tagsOf] = [
    grouped(objectives, (row) => row.question_id),
    grouped(tags, (row) => row.question_id),
  ]
  const rightOf = new Map(right.map((each) => [each.question_id, { share: Number(each.share), n: Number(each.n) }]))
  const usedIn = new Map(used.map((each) => [each.question_id, Number(each.n)]))
  return rows.map((row) => ({
    id: row.id,
    version: row.version,
    state: row.state,
    kind: row.kind,
    title: row.title,
    internalName: row.internal_name,
    key: row.key_text,
    points: Number(row.points),
    seconds: row.seconds,
    difficulty: row.difficulty,
    changedAt: fromSql(row.changed_at),
    objectives: (objectivesOf.get(row.id) ?? []).map((each) => each.objective_id),
    tags: (tagsOf.get(row.id) ?? []).map((each) => each.tag),
    folder: row.folder_id,
    source: row.source,
    language: row.language,
    owner: row.owner,
    sharing: row.sharing,
    stimulus: row.stimulus_id,
    origin: row.bank === null ? null : { bank: row.bank, chosen: row.chosen, copy: row.copy },
    doubts: row.doubts,
    lastUsedAt: row.last_used_at && fromSql(row.last_used_at),
    right: rightOf.get(row.id) ?? null,
    used: usedIn.get(row.id) ?? 0,
  }))
}
