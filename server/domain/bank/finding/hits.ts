import type { QuestionObjectiveRow, QuestionRow, QuestionTagRow, QuizQuestionRow } from '../../../database/tables'
import { unknownFacts, type QuestionFacts } from '../../../../core/figures'
import type { Instant } from '../../../../core/kit/time'
import type { KindName } from '../../../../core/question'
import { fromJson, fromSql } from '../../../database/codec'
import type { Db } from '../../../database/database'
import { facilitiesOf } from './facilities'
import { grouped } from '../../grouped'
import type { Person } from '../../../people/people'
import type { QuestionState } from '../questions/rows'

/** A question as lists show it. */
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
  /** Facility, with n: of first attempts that were handed in; null below the least that core tells anything of. */
  right: { share: number; n: number } | null
  /** What guessing earns on it, and k for formula scoring. */
  guesses: QuestionFacts['guesses']
  options: QuestionFacts['options']
  /** Quizzes that hold it, and when one was last opened. */
  used: number
  lastUsedAt: Instant | null
}

type HitRow = Pick<
  QuestionRow,
  | 'id'
  | 'version'
  | 'state'
  | 'title'
  | 'internal_name'
  | 'key_text'
  | 'points'
  | 'seconds'
  | 'difficulty'
  | 'changed_at'
  | 'folder_id'
  | 'source'
  | 'language'
  | 'stimulus_id'
  | 'chosen'
  | 'doubts'
  | 'last_used_at'
  | 'guessing'
> & { kind: KindName; owner: string; sharing: Hit['sharing']; bank: string | null; copy: string | null }
const hitColumns =
  'q.id, q.version, q.state, q.kind, q.title, q.internal_name, q.key_text, q.points, q.seconds, q.difficulty, q.changed_at, q.folder_id, q.source, q.language, p.name AS owner, q.sharing, q.stimulus_id, b.name AS bank, q.chosen, c.question_id AS copy, q.doubts, q.last_used_at, q.guessing'

/** Given questions as hits, in the order asked for: for a running order that shows what it holds. */
export async function hitsFor(db: Db, person: Pick<Person, 'school'>, ids: readonly string[]): Promise<Hit[]> {
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

/** Before a row has been indexed again by this release. */
const unknownGuessing: Pick<QuestionFacts, 'guesses' | 'options'> = { guesses: unknownFacts.guesses, options: null }

async function withUse(db: Db, rows: HitRow[]): Promise<Hit[]> {
  if (!rows.length) return []
  const ids = rows.map((row) => row.id)
  const [objectives, tags, right, used] = await Promise.all([
    db.rows<Pick<QuestionObjectiveRow, 'question_id' | 'objective_id'>>(
      'SELECT question_id, objective_id FROM question_objective WHERE question_id IN (?) ORDER BY position',
      [ids],
    ),
    db.rows<Pick<QuestionTagRow, 'question_id' | 'tag'>>(
      'SELECT question_id, tag FROM question_tag WHERE question_id IN (?) ORDER BY tag',
      [ids],
    ),
    facilitiesOf(db, ids),
    db.rows<Pick<QuizQuestionRow, 'question_id'> & { n: number }>(
      'SELECT question_id, COUNT(*) AS n FROM quiz_question WHERE question_id IN (?) GROUP BY question_id',
      [ids],
    ),
  ])
  const [objectivesOf, tagsOf] = [
    grouped(objectives, (row) => row.question_id),
    grouped(tags, (row) => row.question_id),
  ]
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
    right: right.get(row.id) ?? null,
    used: usedIn.get(row.id) ?? 0,
    ...(row.guessing === null ? unknownGuessing : (fromJson(row.guessing) as typeof unknownGuessing)),
  }))
}
