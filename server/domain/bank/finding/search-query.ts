import { z } from 'zod'
import { id, kindNames } from '../../../../core/question'
import { languageCode } from '../../../../core/question/language'
import { instant } from '../../../../core/kit/instant'
import type { Instant } from '../../../../core/kit/time'
import { toSql } from '../../../database/codec'
import type { Db, Value } from '../../../database/database'
import type { Person } from '../../../people/people'
import { visibleTo } from './visible'
import { grantedBanks } from '../outside/granted'
import { wordsOf } from './entries'

const many = <O>(member: z.ZodType<O>) =>
  z
    .union([z.string(), z.number(), z.array(z.union([z.string(), z.number()]))])
    .default('')
    .transform((value): unknown[] => (value === '' ? [] : Array.isArray(value) ? value : String(value).split(',')))
    .pipe(z.array(member).max(40))
const tag = z.string().trim().min(1).max(40)

/** What can be searched by: words, and filters of which each takes several values. */
export const searchQuery = z.object({
  words: z.string().max(200, 'Search for at most 200 characters.').default(''),
  kind: many(z.enum(kindNames)),
  objective: many(id),
  difficulty: many(z.coerce.number().int().min(1).max(5)),
  tag: many(tag),
  folder: many(id),
  /** Thinking levels, as scheme:level. */
  level: many(z.string().regex(/^[a-zA-Z0-9_-]{1,40}:[a-zA-Z0-9_-]{1,40}$/)),
  grade: many(tag),
  language: many(z.string().regex(languageCode)),
  state: z.enum(['usable', 'work', 'retired', 'all']).default('all'),
  /** Not opened in a quiz since then. */
  unusedSince: z.union([z.literal(''), instant]).default(''),
  /** Where a colleague says that something is wrong. */
  doubted: z.enum(['', 'yes']).default(''),
  owner: z.enum(['', 'me']).default(''),
  /** From the school's own bank, or from those of others. */
  origin: z.enum(['', 'own', 'outside']).default(''),
  stimulus: z.union([z.literal(''), id]).default(''),
  /** These and no others, where some are named. */
  id: many(id),
  from: z.coerce.number().int().min(0).max(100_000).default(0),
  take: z.coerce.number().int().min(1).max(200).default(60),
})
export type SearchQuery = z.infer<typeof searchQuery>

export const facetFilters = ['kind', 'objective', 'difficulty', 'tag', 'folder', 'level', 'grade'] as const
export type FacetFilter = (typeof facetFilters)[number]

/**
 * Entries of question_word that stand for something else than a word of a text: a word never holds a colon. One table of
 * entries answers words, tags, objectives and folders alike.
 */
export const entryFor = {
  tag: (tag: string) => `t:${tag}`,
  objective: (id: string) => `o:${id}`,
  folder: (id: string) => `f:${id}`,
  level: (level: string) => `l:${level}`,
  kind: (kind: string, difficulty: number) => `k:${kind}:${difficulty}`,
  grade: (grade: string) => `g:${grade.toLowerCase()}`,
}

/** A condition that the table of entries answers: a word's beginning, or one of some exact entries. */
export interface Entries {
  name: FacetFilter | 'words'
  sql: string
  values: Value[]
}
/** A condition on the question's own columns. */
export interface Plain {
  name: FacetFilter | 'rest'
  sql: string
  values: Value[]
}
export interface Conditions {
  plain: Plain[]
  entries: Entries[]
  /** Kind and difficulty once more, by their entries: to begin a search with. */
  kinds: Entries[]
  /** Objectives and folders asked for, with all under them. */ wanted: {
    objective: ReadonlySet<string>
    folder: ReadonlySet<string>
  }
}

/** A pattern for what begins so. */
export const like = (word: string) => word.replace(/[%_\\]/g, '\\$&') + '%'

/** Entries of a tree with all that lie under them. */
export async function under(
  db: Db,
  table: 'objective' | 'folder',
  school: string,
  ids: readonly string[],
): Promise<string[]> {
  if (!ids.length) return []
  const rows = await db.rows<{ id: string }>(
    `WITH RECURSIVE below AS (SELECT id FROM ${table} WHERE id IN (?) AND school_id = ? UNION SELECT c.id FROM ${table} c JOIN below b ON c.parent_id = b.id) SELECT id FROM below`,
    [ids, school],
  )
  return rows.map((row) => row.id)
}

const difficulties = [1, 2, 3, 4, 5]
/** The entries of every kind and difficulty that is asked for. */
const kindEntries = (query: SearchQuery): string[] =>
  (query.kind.length ? query.kind : kindNames).flatMap((kind) =>
    (query.difficulty.length ? query.difficulty : difficulties).map((difficulty) => entryFor.kind(kind, difficulty)),
  )

/** The conditions of a search. @param now for which outside banks are granted; null leaves them out */
export async function conditionsOf(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  query: SearchQuery,
  now: Instant | null,
): Promise<Conditions> {
  const [objectives, folders, banks] = await Promise.all([
    under(db, 'objective', person.school, query.objective),
    under(db, 'folder', person.school, query.folder),
    now && query.origin !== 'own' ? grantedBanks(db, person.school, now) : [],
  ])
  const plain: Plain[] = [{ name: 'rest', ...visibleTo(person, banks) }]
  const rest = (sql: string, ...values: Value[]) => plain.push({ name: 'rest', sql, values })
  if (query.state === 'all') rest("q.state <> 'retired'")
  else rest('q.state = ?', query.state)
  if (query.kind.length) plain.push({ name: 'kind', sql: 'q.kind IN (?)', values: [query.kind] })
  if (query.difficulty.length)
    plain.push({ name: 'difficulty', sql: 'q.difficulty IN (?)', values: [query.difficulty] })
  if (query.language.length) rest('q.language IN (?)', query.language)
  if (query.unusedSince) rest('(q.last_used_at IS NULL OR q.last_used_at < ?)', toSql(query.unusedSince))
  if (query.doubted) rest('q.doubts > 0')
  if (query.origin === 'outside') rest("q.sharing = 'outside'")
  if (query.stimulus) rest('q.stimulus_id = ?', query.stimulus)
  if (query.id.length) rest('q.id IN (?)', query.id)
  if (query.owner) rest('q.owner_id = ?', person.id)
  const entries: Entries[] = wordsOf(query.words)
    .slice(0, 8)
    .map((word) => ({ name: 'words', sql: 'w.word LIKE ?', values: [like(word)] }))
  const exactly = (name: Exclude<keyof typeof entryFor, 'kind'>, ids: readonly string[]) =>
    entries.push({ name, sql: 'w.word IN (?)', values: [ids.length ? ids.map(entryFor[name]) : ['-']] })
  if (query.objective.length) exactly('objective', objectives)
  if (query.folder.length) exactly('folder', folders)
  for (const name of ['tag', 'level', 'grade'] as const) if (query[name].length) exactly(name, query[name])
  const kinds =
    query.kind.length || query.difficulty.length
      ? [{ name: 'kind' as const, sql: 'w.word IN (?)', values: [kindEntries(query)] }]
      : []
  return { plain, entries, kinds, wanted: { objective: new Set(objectives), folder: new Set(folders) } }
}

/**
 * As one condition on questions `q`. A question's own entries are looked through, some tens: left to itself the optimizer
 * reads all entries of the word once more for every question.
 */
export function joined(plain: readonly Plain[], entries: readonly Entries[]): { sql: string; values: Value[] } {
  return {
    sql: [
      ...plain.map((each) => each.sql),
      ...entries.map(
        (each) =>
          `EXISTS (SELECT 1 FROM question_word w FORCE INDEX (question_word_question) WHERE w.question_id = q.id AND ${each.sql})`,
      ),
    ].join(' AND '),
    values: [...plain, ...entries].flatMap((each) => each.values),
  }
}
