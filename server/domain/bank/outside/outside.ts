import type { OutsideBankRow, QuestionCopyRow, QuestionRow } from '../../../database/tables'
import { z } from 'zod'
import type { Instant } from '../../../../core/kit/time'
import { differences, type Difference } from '../../../../core/question/difference'
import type { Question } from '../../../../core/question'
import { readFile } from '../../../../formats'
import { byKey } from '../../../database/by-key'
import { fromSql, toSql } from '../../../database/codec'
import type { Database, Db } from '../../../database/database'
import type { Keeper, ListedBank } from '../../../standins/keeper/keeper'
import { newId } from '../../ids'
import type { Person } from '../../../people/people'
import { notFound, Problem } from '../../problem'
import { recordLine } from '../../record'
import { ensureWritable } from '../questions/access'
import { insertQuestions, insertVersions } from '../questions/rows'
import { loadQuestions, prepared } from '../questions/questions'

export const newFault = z.strictObject({
  words: z.string().trim().min(1, 'Write what is wrong.').max(4000, 'A report has at most 4,000 characters.'),
})

type BankRow = Pick<OutsideBankRow, 'id' | 'bank' | 'name' | 'asked_at' | 'granted_until' | 'synced_at'>
const columns = 'id, bank, name, asked_at, granted_until, synced_at'

export interface OutsideBank extends ListedBank {
  state: 'open' | 'asked' | 'granted' | 'over'
  until: Instant | null
  syncedAt: Instant | null
}
export interface Correction {
  copy: string
  title: string
  bank: string
}
export interface OutsideView {
  banks: OutsideBank[]
  corrections: Correction[]
}

/** What keepers list, what the school has of it, and what has been corrected since it was taken. */
export async function listOutside(
  database: Database,
  person: Person,
  keeper: Keeper,
  now: Instant,
): Promise<OutsideView> {
  const [listed, rows] = await Promise.all([
    keeper.banks(),
    database.rows<BankRow>(`SELECT ${columns} FROM outside_bank WHERE school_id = ?`, [person.school]),
  ])
  // A bank that has been asked for may have been granted meanwhile.
  for (const row of rows.filter((each) => each.granted_until === null))
    // eslint-disable-next-line no-await-in-loop -- a bank's keeper is asked, one after another
    await takeUpGrant(database, person, keeper, row, now)
  const fresh = rows.some((each) => each.granted_until === null)
    ? await database.rows<BankRow>(`SELECT ${columns} FROM outside_bank WHERE school_id = ?`, [person.school])
    : rows
  const own = new Map(fresh.map((row) => [row.bank, row]))
  return {
    banks: listed.map((each) => {
      const row = own.get(each.bank)
      const until = row?.granted_until ? fromSql(row.granted_until) : null
      return {
        ...each,
        until,
        syncedAt: row?.synced_at ? fromSql(row.synced_at) : null,
        state: !row ? 'open' : until === null ? 'asked' : until > now ? 'granted' : 'over',
      }
    }),
    corrections: await listCorrections(database, person),
  }
}

const listCorrections = (db: Db, person: Person): Promise<Correction[]> =>
  db.rows<Correction>(
    `SELECT c.question_id AS copy, q.title, b.name AS bank FROM question_copy c JOIN question o ON o.id = c.of_id AND o.version > c.of_version
  JOIN question q ON q.id = c.question_id AND q.state <> 'retired' JOIN outside_bank b ON b.id = o.origin_bank WHERE q.school_id = ? ORDER BY q.title LIMIT 200`,
    [person.school],
  )

async function loadBank(db: Db, person: Person, bank: string): Promise<BankRow> {
  const row = await db.one<BankRow>(`SELECT ${columns} FROM outside_bank WHERE school_id = ? AND bank = ?`, [
    person.school,
    bank,
  ])
  if (!row) throw notFound('This bank')
  return row
}

/** Asks a keeper for a bank. Once it is granted, its questions are found in the same search as the school's own. */
export async function askForBank(
  database: Database,
  person: Person,
  keeper: Keeper,
  bank: string,
  now: Instant,
): Promise<void> {
  const listed = (await keeper.banks()).find((each) => each.bank === bank)
  if (!listed) throw notFound('This bank')
  await database.run(
    'INSERT INTO outside_bank (id, school_id, bank, name, asked_by, asked_at) VALUES (?, ?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE name = VALUES(name)',
    [newId(), person.school, bank, `${listed.keeper}: ${listed.name}`.slice(0, 160), person.id, toSql(now)],
  )
  await recordLine(database, now, person.id, 'bank asked for', bank)
  await keeper.ask(bank, person.school)
  await takeUpGrant(database, person, keeper, await loadBank(database, person, bank), now)
}

async function takeUpGrant(
  database: Database,
  person: Person,
  keeper: Keeper,
  row: BankRow,
  now: Instant,
): Promise<void> {
  const grant = await keeper.grant(row.bank, person.school)
  if (!grant?.until) return
  await database.run('UPDATE outside_bank SET granted_until = ? WHERE id = ?', [toSql(grant.until), row.id])
  await syncBank(database, person, keeper, row.bank, now)
}

/** Fetches what a bank holds now: new questions, corrections, and how often schools have chosen each. */
export async function syncBank(
  database: Database,
  person: Person,
  keeper: Keeper,
  bank: string,
  now: Instant,
): Promise<{ questions: number; corrected: number }> {
  const row = await loadBank(database, person, bank)
  const delivery = await keeper.deliver(bank, person.school)
  if (!delivery) throw new Problem(409, 'grant', 'This bank is not granted to the school now. Ask for it.')
  const read = (await readFile(delivery.file, delivery.fileName)).items
  const items = delivery.items.flatMap((each, i) =>
    read[i]?.question
      ? [
          {
            ...each,
            question: prepared({ ...read[i].question, stimulus: null, objectives: [], source: row.name.slice(0, 200) }),
          },
        ]
      : [],
  )
  let corrected = 0
  await database.transaction(async (db) => {
    corrected = 0
    const there = new Map(
      (
        await db.rows<Pick<QuestionRow, 'id' | 'origin_item' | 'version'>>(
          'SELECT id, origin_item, version FROM question WHERE origin_bank = ?',
          [row.id],
        )
      ).map((each) => [each.origin_item, each]),
    )
    const fresh = items.filter((each) => !there.has(each.item)).map((each) => ({ id: newId(), ...each }))
    await insertQuestions(
      db,
      person,
      fresh.map(({ id, question }) => ({ id, question, keeping: { folder: null, sharing: 'outside' } })),
      now,
    )
    await nameOrigins(db, row.id, fresh)
    const present = items.flatMap((each) => {
      const mirrored = there.get(each.item)
      return mirrored ? [{ ...each, id: mirrored.id, on: mirrored.version }] : []
    })
    const newer = present.filter((each) => each.version > each.on)
    corrected = (await insertVersions(db, person, newer, now)).size
    await countChoices(db, present)
    await db.run('UPDATE outside_bank SET synced_at = ? WHERE id = ?', [toSql(now), row.id])
  })
  return { questions: items.length, corrected }
}

interface Mirrored {
  id: string
  item: string
  chosen: number
  publishedAt: Instant
}

/** Says of mirrored questions which of the keeper's they are. */
async function nameOrigins(db: Db, bank: string, questions: readonly Mirrored[]): Promise<void> {
  if (!questions.length) return
  const item = byKey(
    'id',
    questions.map((each) => [each.id, each.item] as const),
  )
  const at = byKey(
    'id',
    questions.map((each) => [each.id, toSql(each.publishedAt)] as const),
  )
  await db.run(
    `UPDATE question SET origin_bank = ?, origin_item = ${item.sql}, changed_at = ${at.sql} WHERE id IN (?)`,
    [bank, ...item.values, ...at.values, questions.map((each) => each.id)],
  )
  await countChoices(db, questions)
}

/** How many schools have chosen each. */
async function countChoices(db: Db, questions: readonly Pick<Mirrored, 'id' | 'chosen'>[]): Promise<void> {
  if (!questions.length) return
  const chosen = byKey(
    'id',
    questions.map((each) => [each.id, each.chosen] as const),
  )
  await db.run(`UPDATE question SET chosen = ${chosen.sql} WHERE id IN (?)`, [
    ...chosen.values,
    questions.map((each) => each.id),
  ])
}

interface Origin {
  id: string
  version: number
  origin_item: string
  bank: string
  name: string
}
/** The outside question that is meant: itself, or the one that a copy was taken of. Its bank has to be granted now. */
async function originOf(db: Db, person: Person, question: string, now: Instant): Promise<Origin> {
  const row = await db.one<Origin>(
    `SELECT o.id, o.version, o.origin_item, b.bank, b.name FROM question o JOIN outside_bank b ON b.id = o.origin_bank
    WHERE o.school_id = ? AND b.granted_until > ? AND (o.id = ? OR o.id = (SELECT of_id FROM question_copy WHERE question_id = ?))`,
    [person.school, toSql(now), question, question],
  )
  if (!row) throw notFound('This question')
  return row
}

/** Takes an outside question: the school's own copy, with its source. A second taking finds the first. */
export async function takeQuestion(
  database: Database,
  person: Person,
  keeper: Keeper,
  question: string,
  now: Instant,
): Promise<{ id: string }> {
  const origin = await originOf(database, person, question, now)
  const made = await database.transaction(async (db) => {
    const there = await db.one<Pick<QuestionCopyRow, 'question_id'>>(
      'SELECT question_id FROM question_copy WHERE of_id = ? FOR UPDATE',
      [origin.id],
    )
    if (there) return { id: there.question_id }
    const found = (await loadQuestions(db, person.school, [origin.id])).get(origin.id)!
    const id = newId()
    await insertQuestions(
      db,
      person,
      [{ id, question: { ...found.question, source: `${origin.name}, ${origin.origin_item}`.slice(0, 200) } }],
      now,
    )
    await db.run('INSERT INTO question_copy (question_id, of_id, of_version) VALUES (?, ?, ?)', [
      id,
      origin.id,
      found.version,
    ])
    await recordLine(db, now, person.id, 'question taken', id, { from: origin.bank, item: origin.origin_item })
    return { id }
  })
  await keeper.chose(origin.bank, person.school, origin.origin_item)
  return made
}

/** Tells the keeper of a fault; its corrections come with what is fetched next. */
export async function reportFault(
  database: Database,
  person: Person,
  keeper: Keeper,
  question: string,
  { words }: z.infer<typeof newFault>,
  now: Instant,
): Promise<void> {
  const origin = await originOf(database, person, question, now)
  await database.run(
    'INSERT INTO outside_fault (id, question_id, version, said_by, said_at, words) VALUES (?, ?, ?, ?, ?, ?)',
    [newId(), origin.id, origin.version, person.id, toSql(now), words],
  )
  await keeper.report(origin.bank, person.school, origin.origin_item, origin.version, words)
}

async function correctionOf(
  db: Db,
  person: Person,
  copy: string,
): Promise<{ of: string; version: number; was: number }> {
  const row = await db.one<{ of: string; version: number; was: number }>(
    'SELECT o.id AS `of`, o.version, c.of_version AS was FROM question_copy c JOIN question o ON o.id = c.of_id JOIN question q ON q.id = c.question_id WHERE c.question_id = ? AND q.school_id = ?',
    [copy, person.school],
  )
  if (!row || row.version <= row.was) throw notFound('A correction of this question')
  return row
}

/** What a keeper's correction would change in the school's copy. */
export async function correctionDifferences(db: Db, person: Person, copy: string): Promise<Difference[]> {
  const { of } = await correctionOf(db, person, copy)
  const found = await loadQuestions(db, person.school, [copy, of])
  const [own, theirs] = [found.get(copy)!.question, found.get(of)!.question]
  return differences(own, {
    ...theirs,
    objectives: own.objectives,
    tags: own.tags,
    source: own.source,
    internalName: own.internalName,
  })
}

/** The corrected question, with what the school has made its own of the copy. */
function corrected(own: { question: Question }, theirs: { question: Question }): Question {
  const { objectives, tags, source, internalName, points } = own.question
  return { ...theirs.question, objectives, tags, source, internalName, points }
}

/** Takes a correction over as a new version of the copy, which keeps its objectives, tags and source; or leaves it. */
export async function answerCorrection(
  database: Database,
  person: Person,
  copy: string,
  take: boolean,
  now: Instant,
): Promise<{ version: number }> {
  return database.transaction(async (db) => {
    await ensureWritable(db, person, copy)
    const { of, version } = await correctionOf(db, person, copy)
    const found = await loadQuestions(db, person.school, [copy, of])
    const [own, theirs] = [found.get(copy)!, found.get(of)!]
    if (
      take &&
      !(await insertVersions(db, person, [{ id: copy, on: own.version, question: corrected(own, theirs) }], now)).size
    )
      throw new Problem(409, 'newer-version', 'A colleague has changed this question just now. Look at it again.')
    await db.run('UPDATE question_copy SET of_version = ? WHERE question_id = ?', [version, copy])
    return { version: own.version + (take ? 1 : 0) }
  })
}
