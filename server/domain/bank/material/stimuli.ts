import type { QuestionRow, StimulusRow, StimulusVersionRow } from '../../../database/tables'
import { mapStimulusHtml, plainText, type Stimulus } from '../../../../core/question'
import type { Instant } from '../../../../core/kit/time'
import { fromSql, toJson, toSql } from '../../../database/codec'
import { readStimulus } from '../../../documents/read'
import type { Database, Db } from '../../../database/database'
import { newId } from '../../ids'
import type { Person } from '../../../people/people'
import { notFound, Problem } from '../../problem'
import { recordLine } from '../../record'
import { seenAmong } from '../finding/visible'
import { cleanHtml, renderMaths } from './clean-html'
import { hitsFor, type Hit } from '../finding/hits'

export interface StimulusLine {
  id: string
  name: string
  beginning: string
  questions: number
  changedAt: Instant
}
export interface StimulusDetail {
  id: string
  version: number
  stimulus: Stimulus
  /** As students see it: maths rendered. */
  shown: string
  /** Those that may be seen and are not retired. */
  questions: Hit[]
}

/** Cleaned, with its maths tried. @throws Problem when it cannot be read */
export function preparedStimulus(written: Stimulus): Stimulus {
  const clean = mapStimulusHtml(written, cleanHtml)
  mapStimulusHtml(clean, renderMaths)
  return clean
}

/** Newest first; with words, those whose name or text holds them. A school has hundreds, not more. */
export async function listStimuli(db: Db, person: Person, words: string): Promise<StimulusLine[]> {
  const rows = await db.rows<
    Pick<QuestionRow, 'id' | 'changed_at'> & { name: string; body: string; questions: number }
  >(
    `SELECT s.id, s.name, v.body, s.changed_at,
      (SELECT COUNT(*) FROM question q WHERE q.stimulus_id = s.id AND q.state <> 'retired') AS questions
    FROM stimulus s JOIN stimulus_version v ON v.stimulus_id = s.id AND v.version = s.version
    WHERE s.school_id = ? ORDER BY s.changed_at DESC, s.id LIMIT 500`,
    [person.school],
  )
  const wanted = words.trim().toLowerCase().split(/\s+/)
  return rows
    .map((row) => ({
      id: row.id,
      name: row.name,
      text: plainText(readStimulus(row.body).html),
      questions: Number(row.questions),
      changedAt: fromSql(row.changed_at),
    }))
    .filter(({ name, text }) => wanted.every((word) => `${name} ${text}`.toLowerCase().includes(word)))
    .map(({ text, ...line }) => ({ ...line, beginning: text.slice(0, 200) }))
}

/**
 * A stimulus with its maths drawn and those of its questions that the person may see. Refuses one of another school.
 */
export async function loadStimulus(db: Db, person: Person, id: string): Promise<StimulusDetail> {
  const found = (await loadStimuli(db, person.school, [id])).get(id)
  if (!found) throw notFound('This stimulus')
  const questions = await db.rows<Pick<QuestionRow, 'id'>>(
    "SELECT id FROM question WHERE stimulus_id = ? AND state <> 'retired' ORDER BY changed_at, id",
    [id],
  )
  const seen = await seenAmong(
    db,
    person,
    questions.map((row) => row.id),
  )
  return {
    id,
    ...found,
    shown: renderMaths(found.stimulus.html),
    questions: await hitsFor(
      db,
      person,
      questions.map((row) => row.id).filter((each) => seen.has(each)),
    ),
  }
}

/** Newest versions of many, by id; those that are not there are left out. */
export async function loadStimuli(
  db: Db,
  school: string,
  ids: readonly string[],
): Promise<Map<string, { version: number; stimulus: Stimulus }>> {
  if (!ids.length) return new Map()
  const rows = await db.rows<Pick<StimulusRow, 'id' | 'version'> & Pick<StimulusVersionRow, 'body'>>(
    'SELECT s.id, s.version, v.body FROM stimulus s JOIN stimulus_version v ON v.stimulus_id = s.id AND v.version = s.version WHERE s.id IN (?) AND s.school_id = ?',
    [ids, school],
  )
  return new Map(rows.map((row) => [row.id, { version: row.version, stimulus: readStimulus(row.body) }]))
}

/** @param outside what the file that it comes from calls it */
export async function addStimulus(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  written: Stimulus,
  now: Instant,
  id = newId(),
  outside: string | null = null,
): Promise<{ id: string; version: number }> {
  await addStimuli(db, person, [{ id, stimulus: written, outside }], now)
  return { id, version: 1 }
}

/** Adds several. @throws Problem when one of them cannot be kept */
export async function addStimuli(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  written: readonly { id: string; stimulus: Stimulus; outside: string | null }[],
  now: Instant,
): Promise<void> {
  if (!written.length) return
  const clean = written.map((each) => ({ ...each, stimulus: preparedStimulus(each.stimulus) }))
  await db.run('INSERT INTO stimulus (id, school_id, version, name, changed_at, outside_id) VALUES ?', [
    clean.map(({ id, stimulus, outside }) => [id, person.school, 1, stimulus.name, toSql(now), outside]),
  ])
  await db.run('INSERT INTO stimulus_version (stimulus_id, version, made_by, made_at, body) VALUES ?', [
    clean.map(({ id, stimulus }) => [id, 1, person.id, toSql(now), toJson(stimulus)]),
  ])
}

/** Keeps a change as the next version; another one made in between is a conflict, and nothing is lost. */
export async function reviseStimulus(
  database: Database,
  person: Person,
  id: string,
  onVersion: number,
  written: Stimulus,
  now: Instant,
): Promise<{ id: string; version: number }> {
  const clean = preparedStimulus(written)
  await database.transaction(async (db) => {
    const changed = await db.run(
      'UPDATE stimulus SET version = ?, name = ?, changed_at = ? WHERE id = ? AND school_id = ? AND version = ?',
      [onVersion + 1, clean.name, toSql(now), id, person.school, onVersion],
    )
    if (!changed) {
      const newest = await db.one<Pick<StimulusRow, 'version'>>(
        'SELECT version FROM stimulus WHERE id = ? AND school_id = ?',
        [id, person.school],
      )
      if (!newest) throw notFound('This stimulus')
      throw new Problem(
        409,
        'newer-version',
        `A colleague has made version ${newest.version} since you opened this stimulus. Copy what you wrote, load the newest version and put it in.`,
        { version: newest.version },
      )
    }
    await db.run('INSERT INTO stimulus_version (stimulus_id, version, made_by, made_at, body) VALUES (?, ?, ?, ?, ?)', [
      id,
      onVersion + 1,
      person.id,
      toSql(now),
      toJson(clean),
    ])
    await recordLine(db, now, person.id, 'stimulus revised', id, { version: onVersion + 1 })
  })
  return { id, version: onVersion + 1 }
}

/** Takes away a stimulus that no question shares. */
export async function removeStimulus(database: Database, person: Person, id: string): Promise<void> {
  await database.transaction(async (db) => {
    if (!(await db.one('SELECT id FROM stimulus WHERE id = ? AND school_id = ? FOR UPDATE', [id, person.school])))
      throw notFound('This stimulus')
    const { n } = (await db.one<{ n: number }>('SELECT COUNT(*) AS n FROM question WHERE stimulus_id = ?', [id]))!
    if (Number(n))
      throw new Problem(
        409,
        'in-use',
        `${n} ${Number(n) === 1 ? 'question shares' : 'questions share'} this stimulus, retired ones among them. Take it out of them first.`,
      )
    await db.run('DELETE FROM stimulus_version WHERE stimulus_id = ?', [id])
    await db.run('DELETE FROM stimulus WHERE id = ?', [id])
  })
}
