import type { ObjectiveRow, QuestionRow, QuestionVersionRow } from '../../../database/tables'
import type { Instant } from '../../../../core/kit/time'
import type { QuestionFacts } from '../../../../core/figures'
import { gapText } from '../../../../core/question/kinds/gaps'
import { nearKey } from '../../../../core/question/near'
import { isBlank, kindOf, plainText, questionFaults, type Question } from '../../../../core/question'
import { toJson, toSql } from '../../../database/codec'
import { readQuestion } from '../../../documents/read'
import { inBatches } from '../../../database/batches'
import type { Database, Db } from '../../../database/database'
import { Problem } from '../../problem'
import { recordLines } from '../../record'
import type { Person } from '../../../people/people'
import { entryFor } from '../finding/search-query'
import { searchable, wordsOf } from '../finding/entries'

/** How questions stand in tables: what lists show, what is searched, and their versions. */

export type QuestionState = 'work' | 'usable' | 'retired'

/** What figures of a quiz ask of a question's body. */
const guessingOf = (question: Question): Pick<QuestionFacts, 'guesses' | 'options'> => {
  const kind = kindOf(question.kind)
  return { guesses: kind.guesses(question.body), options: kind.guessable(question.body) }
}

const levelsOf = (question: Question): string[] =>
  Object.entries(question.levels).map(([scheme, level]) => `${scheme}:${level}`)

/** What lists show and filters ask, taken from the newest version. */
function listed(question: Question): Record<string, string | number | null> {
  const stem =
    question.kind === 'gaps' && isBlank(question.stem) ? gapText(question.body.text) : plainText(question.stem)
  return {
    kind: question.kind,
    title: stem.slice(0, 400) || (isBlank(question.stem) ? 'Untitled question' : 'A picture'),
    internal_name: question.internalName,
    key_text: question.keyless ? '' : kindOf(question.kind).keyText(question.body).slice(0, 400),
    points: question.points,
    seconds: question.seconds,
    difficulty: question.difficulty,
    language: question.language,
    source: question.source,
    stimulus_id: question.stimulus,
    near_key: nearKey(question),
    guessing: toJson(guessingOf(question)),
    facets: toJson({ o: question.objectives, t: question.tags, l: levelsOf(question), g: question.grade }),
  }
}

/** Words of a question, its tags and its objectives; its folder is entered where it is put. */
const entriesOf = (question: Question, objectiveWords: string): string[] => [
  ...wordsOf(searchable(question, objectiveWords)),
  ...question.tags.map(entryFor.tag),
  ...question.objectives.map(entryFor.objective),
  ...levelsOf(question).map(entryFor.level),
  entryFor.kind(question.kind, question.difficulty),
  ...(question.grade ? [entryFor.grade(question.grade)] : []),
]

async function objectiveTitles(db: Db, questions: readonly Question[]): Promise<Map<string, string>> {
  const ids = [...new Set(questions.flatMap((question) => question.objectives))]
  const rows = ids.length
    ? await db.rows<Pick<ObjectiveRow, 'id' | 'title'>>('SELECT id, title FROM objective WHERE id IN (?)', [ids])
    : []
  if (rows.length < ids.length)
    throw new Problem(422, 'objective', 'One of the objectives is no longer there. Choose it anew.')
  return new Map(rows.map(({ id, title }) => [id, title]))
}

async function ensureStimuli(db: Db, school: string, questions: readonly Question[]): Promise<void> {
  const ids = [...new Set(questions.flatMap((question) => question.stimulus ?? []))]
  if (
    ids.length &&
    (await db.rows('SELECT id FROM stimulus WHERE id IN (?) AND school_id = ?', [ids, school])).length < ids.length
  )
    throw new Problem(422, 'stimulus', 'The stimulus of this question is no longer there. Choose it anew.')
}

/** Rows are sent some at a time: a packet has a limit. */
const rowsAtOnce = 4000
async function insertMany(db: Db, sql: string, rows: readonly (readonly (string | number)[])[]): Promise<void> {
  await inBatches(rows, rowsAtOnce, (part) => db.run(sql, [part]))
}

/** Words, tags and objectives of questions, in place of what was there. */
export async function indexQuestions(db: Db, entries: readonly { id: string; question: Question }[]): Promise<void> {
  if (!entries.length) return
  const titles = await objectiveTitles(
    db,
    entries.map(({ question }) => question),
  )
  const ids = entries.map(({ id }) => id)
  await db.run('DELETE FROM question_objective WHERE question_id IN (?)', [ids])
  await db.run('DELETE FROM question_tag WHERE question_id IN (?)', [ids])
  await db.run("DELETE FROM question_word WHERE question_id IN (?) AND word NOT LIKE 'f:%'", [ids])
  await insertMany(
    db,
    'INSERT INTO question_objective (question_id, objective_id, position) VALUES ?',
    entries.flatMap(({ id, question }) => question.objectives.map((objective, position) => [id, objective, position])),
  )
  await insertMany(
    db,
    'INSERT IGNORE INTO question_tag (question_id, tag) VALUES ?',
    entries.flatMap(({ id, question }) => question.tags.map((tag) => [id, tag])),
  )
  await insertMany(
    db,
    'INSERT IGNORE INTO question_word (word, question_id, kind, difficulty) VALUES ?',
    entries.flatMap(({ id, question }) =>
      entriesOf(question, question.objectives.map((objective) => titles.get(objective)).join(' ')).map((word) => [
        word,
        id,
        question.kind,
        question.difficulty,
      ]),
    ),
  )
  await db.run(
    "UPDATE question_word w JOIN question q ON q.id = w.question_id SET w.kind = q.kind, w.difficulty = q.difficulty WHERE w.question_id IN (?) AND w.word LIKE 'f:%'",
    [ids],
  )
}

/** In work while something keeps it from being marked. */
export const stateOf = (question: Question): QuestionState => (questionFaults(question).length ? 'work' : 'usable')

/** Where a question is kept and who may see it: not part of a version. */
export interface Keeping {
  folder: string | null
  sharing: 'school' | 'named' | 'private' | 'staged' | 'outside'
}
export const usualKeeping: Keeping = { folder: null, sharing: 'school' }

export interface NewQuestion {
  id: string
  question: Question
  keeping?: Keeping
  /** When it was written, where that is not now. */
  at?: Instant
}

/** Keeps new questions, prepared, in a few statements however many they are. */
export async function insertQuestions(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  added: readonly NewQuestion[],
  now: Instant,
): Promise<{ id: string; state: QuestionState }[]> {
  if (!added.length) return []
  await ensureStimuli(
    db,
    person.school,
    added.map(({ question }) => question),
  )
  const rows = added.map(({ id, question, keeping = usualKeeping, at = now }) => ({
    id,
    school_id: person.school,
    owner_id: person.id,
    state: stateOf(question),
    version: 1,
    changed_at: toSql(at),
    folder_id: keeping.folder,
    sharing: keeping.sharing,
    ...listed(question),
  }))
  const columns = Object.keys(rows[0]!)
  await db.run(`INSERT INTO question (${columns.join(', ')}) VALUES ?`, [rows.map((row) => Object.values(row))])
  await db.run('INSERT INTO question_version (question_id, version, made_by, made_at, body) VALUES ?', [
    added.map(({ id, question, at = now }) => [id, 1, person.id, toSql(at), toJson(question)]),
  ])
  await indexQuestions(db, added)
  await insertMany(
    db,
    'INSERT IGNORE INTO question_word (word, question_id, kind, difficulty) VALUES ?',
    added.flatMap(({ id, question, keeping }) =>
      keeping?.folder ? [[entryFor.folder(keeping.folder), id, question.kind, question.difficulty]] : [],
    ),
  )
  return rows.map(({ id, state }) => ({ id, state }))
}

/** A question's row as it stands, without what lists show of it. */
interface Standing {
  id: string
  school_id: string
  owner_id: string
  state: QuestionState
  version: number
  changed_at: string
}

/** Writes rows of questions that are all there: one statement, however many. */
async function updateRows(db: Db, rows: readonly (Standing & ReturnType<typeof listed>)[]): Promise<void> {
  if (!rows.length) return
  const columns = Object.keys(rows[0]!)
  const changing = columns.filter((name) => !['id', 'school_id', 'owner_id'].includes(name))
  await db.run(
    `INSERT INTO question (${columns.join(', ')}) VALUES ? ON DUPLICATE KEY UPDATE ${changing.map((name) => `${name} = VALUES(${name})`).join(', ')}`,
    [rows.map((row) => Object.values(row))],
  )
}

/** A prepared change of a question, made on a version of it. */
export interface Revision {
  id: string
  on: number
  question: Question
}

/**
 * Keeps prepared changes as next versions, of those questions of which nobody has made one in between. What was retired
 * stays so. The key of versions is what lets one of two win: two that made the same version cannot both commit.
 * @returns the ids of those that were kept
 */
export async function insertVersions(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  revisions: readonly Revision[],
  now: Instant,
): Promise<Set<string>> {
  if (!revisions.length) return new Set()
  const rows = await db.rows<Standing>(
    'SELECT id, school_id, owner_id, state, version, changed_at FROM question WHERE id IN (?) AND school_id = ? FOR UPDATE',
    [revisions.map(({ id }) => id), person.school],
  )
  const standing = new Map(rows.map((row) => [row.id, row]))
  const kept = revisions.filter(({ id, on }) => standing.get(id)?.version === on)
  if (!kept.length) return new Set()
  await ensureStimuli(
    db,
    person.school,
    kept.map(({ question }) => question),
  )
  await db.run('INSERT INTO question_version (question_id, version, made_by, made_at, body) VALUES ?', [
    kept.map(({ id, on, question }) => [id, on + 1, person.id, toSql(now), toJson(question)]),
  ])
  await updateRows(
    db,
    kept.map(({ id, on, question }) => {
      const row = standing.get(id)!
      const state = row.state === 'retired' ? row.state : stateOf(question)
      return { ...row, state, version: on + 1, changed_at: toSql(now), ...listed(question) }
    }),
  )
  await indexQuestions(db, kept)
  await recordLines(
    db,
    now,
    person.id,
    'question revised',
    kept.map(({ id, on }) => ({ subject: id, detail: { version: on + 1 } })),
  )
  return new Set(kept.map(({ id }) => id))
}

/** The bodies of given versions, by question. */
export async function loadVersions(
  db: Db,
  wanted: readonly { id: string; version: number }[],
): Promise<Map<string, Question>> {
  if (!wanted.length) return new Map()
  const rows = await db.rows<Pick<QuestionVersionRow, 'question_id' | 'body'>>(
    'SELECT question_id, body FROM question_version WHERE (question_id, version) IN (?)',
    [wanted.map(({ id, version }) => [id, version])],
  )
  return new Map(rows.map((row) => [row.question_id, readQuestion(row.body)]))
}

/** Takes title, words, tags and the rest of the index anew from the newest versions: after a migration that added to them. */
export async function reindexAll(database: Database, batch = 200): Promise<number> {
  const all = await database.rows<Pick<QuestionRow, 'id'>>('SELECT id FROM question ORDER BY id')
  await inBatches(all, batch, (part) =>
    database.transaction(async (db) => {
      const rows = await db.rows<Standing & { body: string }>(
        'SELECT q.id, q.school_id, q.owner_id, q.state, q.version, q.changed_at, v.body FROM question q JOIN question_version v ON v.question_id = q.id AND v.version = q.version WHERE q.id IN (?)',
        [part.map(({ id }) => id)],
      )
      const entries = rows.map(({ body, ...row }) => ({ id: row.id, row, question: readQuestion(body) }))
      await indexQuestions(db, entries)
      await updateRows(
        db,
        entries.map(({ row, question }) => ({ ...row, ...listed(question) })),
      )
    }),
  )
  return all.length
}
