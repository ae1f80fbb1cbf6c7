import type { Instant } from '../../../core/kit/time'
import { gapText } from '../../../core/question/kinds/gaps'
import { nearKey } from '../../../core/question/near'
import {
  completed,
  isBlank,
  kindOf,
  mapEveryHtml,
  plainText,
  questionFaults,
  type Question,
} from '../../../core/question'
import { fromJson, fromSql, toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'
import type { Person } from '../people/people'
import { ensureWritable, visibleTo, writable } from './access'
import { grantedBanks } from './granted'
import { cleanHtml, renderMaths } from './html'
import { entryFor } from './search-query'
import { searchable, wordsOf } from './words'

export type QuestionState = 'work' | 'usable' | 'retired'

export interface QuestionDetail {
  id: string
  version: number
  state: QuestionState
  question: Question
  ownerName: string
  mine: boolean
  mayWrite: boolean
  folder: string | null
  sharing: Keeping['sharing']
  shares: { email: string; name: string; may: 'read' | 'write' }[]
  versions: { version: number; madeBy: string; madeAt: Instant }[]
  /** Of a bank that somebody else keeps: whose, how many schools have chosen it, and the school's own copy. */
  origin: { bank: string; chosen: number; copy: string | null } | null
  /** Of a copy: from where, and whether its keeper has corrected it since. */
  takenFrom: { bank: string; corrected: boolean } | null
}

interface OwnRow {
  version: number
  state: QuestionState
  owner_id: string
  owner: string
  folder_id: string | null
  sharing: Keeping['sharing']
  bank: string | null
  chosen: number
  copy: string | null
  taken_from: string | null
  corrected: number | null
}

const readQuestion = (body: string): Question => completed(fromJson<Question>(body))

/** The question as people see it: cleaned HTML with maths rendered. */
export function shown(question: Question): Question {
  return mapEveryHtml(question, renderMaths)
}

/** Cleaned, with its maths tried. @throws Problem when it cannot be read */
export function prepared(question: Question): Question {
  const clean = mapEveryHtml(question, cleanHtml)
  shown(clean)
  return clean
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
    key_text: kindOf(question.kind).keyText(question.body).slice(0, 400),
    points: question.points,
    seconds: question.seconds,
    difficulty: question.difficulty,
    language: question.language,
    source: question.source,
    stimulus_id: question.stimulus,
    near_key: nearKey(question),
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
    ? await db.rows<{ id: string; title: string }>('SELECT id, title FROM objective WHERE id IN (?)', [ids])
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
  for (let from = 0; from < rows.length; from += rowsAtOnce) await db.run(sql, [rows.slice(from, from + rowsAtOnce)])
}

/** Words, tags and objectives of questions, in place of what was there. */
export async function indexQuestions(db: Db, entries: readonly { id: string; question: Question }[]): Promise<void> {
  if (!entries.length) return
  const titles = await objectiveTitles(
    db,
    entries.map(({ question }) => question),
  )
  const ids = entries.map(({ id }) => id)
  for (const table of ['question_objective', 'question_tag'])
    await db.run(`DELETE FROM ${table} WHERE question_id IN (?)`, [ids])
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

const stateOf = (question: Question): QuestionState => (questionFaults(question).length ? 'work' : 'usable')

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
  const rows = added.map(({ id, question, keeping = usualKeeping }) => ({
    id,
    school_id: person.school,
    owner_id: person.id,
    state: stateOf(question),
    version: 1,
    changed_at: toSql(now),
    folder_id: keeping.folder,
    sharing: keeping.sharing,
    ...listed(question),
  }))
  const columns = Object.keys(rows[0]!)
  await db.run(`INSERT INTO question (${columns.join(', ')}) VALUES ?`, [rows.map((row) => Object.values(row))])
  await db.run('INSERT INTO question_version (question_id, version, made_by, made_at, body) VALUES ?', [
    added.map(({ id, question }) => [id, 1, person.id, toSql(now), toJson(question)]),
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

/** Keeps a new question. One that cannot be marked yet is kept as "in work". */
export async function addQuestion(
  database: Database,
  person: Pick<Person, 'id' | 'school'>,
  question: Question,
  now: Instant,
  id = newId(),
  keeping = usualKeeping,
): Promise<{ id: string; version: number; state: QuestionState }> {
  const clean = prepared(question)
  const [kept] = await database.transaction((db) =>
    insertQuestions(db, person, [{ id, question: clean, keeping }], now),
  )
  return { id, version: 1, state: kept!.state }
}

/** Keeps a prepared change as the next version, if nobody has made one in between. @returns whether it did */
export async function insertVersion(
  db: Db,
  person: Person,
  id: string,
  onVersion: number,
  question: Question,
  now: Instant,
  state = stateOf(question),
): Promise<boolean> {
  await ensureStimuli(db, person.school, [question])
  const values: Record<string, string | number | null> = {
    version: onVersion + 1,
    state,
    changed_at: toSql(now),
    ...listed(question),
  }
  const changed = await db.run(
    `UPDATE question SET ${Object.keys(values)
      .map((name) => `${name} = ?`)
      .join(', ')} WHERE id = ? AND school_id = ? AND version = ?`,
    [...Object.values(values), id, person.school, onVersion],
  )
  if (changed === 0) return false
  await db.run('INSERT INTO question_version (question_id, version, made_by, made_at, body) VALUES (?, ?, ?, ?, ?)', [
    id,
    onVersion + 1,
    person.id,
    toSql(now),
    toJson(question),
  ])
  await indexQuestions(db, [{ id, question }])
  await recordLine(db, now, person.id, 'question revised', id, { version: onVersion + 1 })
  return true
}

/**
 * Keeps a change as a new version; versions never change.
 * @param onVersion the version that was being edited: another one in between is a conflict, and nothing is lost
 */
export async function reviseQuestion(
  database: Database,
  person: Person,
  id: string,
  onVersion: number,
  question: Question,
  now: Instant,
): Promise<{ id: string; version: number; state: QuestionState }> {
  const clean = prepared(question)
  await database.transaction(async (db) => {
    await ensureWritable(db, person, id)
    if (await insertVersion(db, person, id, onVersion, clean, now)) return
    const newest = await db.one<{ version: number; name: string }>(
      'SELECT v.version, p.name FROM question q JOIN question_version v ON v.question_id = q.id AND v.version = q.version JOIN person p ON p.id = v.made_by WHERE q.id = ?',
      [id],
    )
    throw new Problem(
      409,
      'newer-version',
      `${newest?.name ?? 'Somebody'} has made version ${newest?.version ?? '?'} since you opened this question. Copy what you wrote, load the newest version and put it in.`,
      { version: newest?.version },
    )
  })
  return { id, version: onVersion + 1, state: stateOf(clean) }
}

/** Retires a question or brings it back. */
export async function setQuestionState(
  database: Database,
  person: Person,
  id: string,
  retired: boolean,
  now: Instant,
): Promise<void> {
  const { question } = await loadQuestion(database, person, id)
  await ensureWritable(database, person, id)
  const state: QuestionState = retired ? 'retired' : stateOf(question)
  await database.run('UPDATE question SET state = ?, changed_at = ? WHERE id = ? AND school_id = ?', [
    state,
    toSql(now),
    id,
    person.school,
  ])
}

/** @param now with it, questions of outside banks that are granted then are found as well */
export async function loadQuestion(
  db: Db,
  person: Person,
  id: string,
  version?: number,
  now: Instant | null = null,
): Promise<QuestionDetail> {
  const visible = visibleTo(person, now ? await grantedBanks(db, person.school, now) : [])
  const row = await db.one<OwnRow>(
    `SELECT q.version, q.state, q.owner_id, p.name AS owner, q.folder_id, q.sharing, b.name AS bank, q.chosen, mine.question_id AS copy, ob.name AS taken_from, o.version > c.of_version AS corrected
    FROM question q JOIN person p ON p.id = q.owner_id LEFT JOIN outside_bank b ON b.id = q.origin_bank LEFT JOIN question_copy mine ON mine.of_id = q.id
    LEFT JOIN question_copy c ON c.question_id = q.id LEFT JOIN question o ON o.id = c.of_id LEFT JOIN outside_bank ob ON ob.id = o.origin_bank WHERE q.id = ? AND ${visible.sql}`,
    [id, ...visible.values],
  )
  if (!row) throw notFound('This question')
  const [rows, shares, may] = await Promise.all([
    db.rows<{ version: number; name: string; made_at: string; body: string | null }>(
      'SELECT v.version, p.name, v.made_at, IF(v.version = ?, v.body, NULL) AS body FROM question_version v JOIN person p ON p.id = v.made_by WHERE v.question_id = ? ORDER BY v.version DESC',
      [version ?? row.version, id],
    ),
    db.rows<{ email: string; name: string; may: 'read' | 'write' }>(
      'SELECT p.email, p.name, s.may FROM question_share s JOIN person p ON p.id = s.person_id WHERE s.question_id = ? ORDER BY p.name',
      [id],
    ),
    writable(db, person, [id]),
  ])
  const body = rows.find((each) => each.body !== null)?.body
  if (!body) throw notFound('This version')
  return {
    id,
    version: row.version,
    state: row.state,
    question: readQuestion(body),
    ownerName: row.owner,
    mine: row.owner_id === person.id,
    mayWrite: may.has(id),
    folder: row.folder_id,
    sharing: row.sharing,
    shares,
    origin: row.bank === null ? null : { bank: row.bank, chosen: row.chosen, copy: row.copy },
    takenFrom: row.taken_from === null ? null : { bank: row.taken_from, corrected: Boolean(row.corrected) },
    versions: rows.map((each) => ({ version: each.version, madeBy: each.name, madeAt: fromSql(each.made_at) })),
  }
}

/** Newest versions of many questions at once, by id. Those that are not there are left out. */
export async function loadQuestions(
  db: Db,
  school: string,
  ids: readonly string[],
): Promise<Map<string, { version: number; state: QuestionState; question: Question }>> {
  if (!ids.length) return new Map()
  const rows = await db.rows<{ id: string; version: number; state: QuestionState; body: string }>(
    'SELECT q.id, q.version, q.state, v.body FROM question q JOIN question_version v ON v.question_id = q.id AND v.version = q.version WHERE q.id IN (?) AND q.school_id = ?',
    [ids, school],
  )
  return new Map(
    rows.map((row) => [row.id, { version: row.version, state: row.state, question: readQuestion(row.body) }]),
  )
}

/** Takes title, words, tags and the rest of the index anew from the newest versions: after a migration that added to them. */
export async function reindexAll(database: Database, batch = 200): Promise<number> {
  let done = 0
  for (let after = ''; ; done += batch) {
    const rows = await database.rows<{ id: string; body: string }>(
      'SELECT q.id, v.body FROM question q JOIN question_version v ON v.question_id = q.id AND v.version = q.version WHERE q.id > ? ORDER BY q.id LIMIT ?',
      [after, batch],
    )
    if (!rows.length) return done
    const entries = rows.map((row) => ({ id: row.id, question: readQuestion(row.body) }))
    await database.transaction(async (db) => {
      await indexQuestions(db, entries)
      for (const { id, question } of entries) {
        const values = listed(question)
        await db.run(
          `UPDATE question SET ${Object.keys(values)
            .map((name) => `${name} = ?`)
            .join(', ')} WHERE id = ?`,
          [...Object.values(values), id],
        )
      }
    })
    after = rows.at(-1)!.id
  }
}
