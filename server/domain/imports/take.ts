import type { Instant } from '../../../core/kit/time'
import { fromJson, toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { writable } from '../bank/access'
import { insertQuestions, insertVersion, loadQuestions, type NewQuestion } from '../bank/questions'
import { newId } from '../ids'
import type { Person } from '../people/people'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { loadBatch, type StagedItem } from './stage'

/** What an import did, for taking it back. */
interface Result { added: string[], changed: { id: string, version: number }[] }

const atOnce = 200

/** Folders by their names from the top; those that are missing are made. */
async function folderFor(db: Db, school: string, path: readonly string[], known: Map<string, string>): Promise<string | null> {
  let parent: string | null = null
  for (const [depth, raw] of path.entries()) {
    const name = raw.slice(0, 120)
    const key = path.slice(0, depth + 1).join('\u0000')
    const there: string | undefined = known.get(key) ?? (await db.one<{ id: string }>(`SELECT id FROM folder WHERE school_id = ? AND name = ? AND parent_id ${parent ? '= ?' : 'IS NULL'}`, parent ? [school, name, parent] : [school, name]))?.id
    const id: string = there ?? newId()
    if (!there) await db.run('INSERT INTO folder (id, school_id, parent_id, name) VALUES (?, ?, ?, ?)', [id, school, parent, name])
    known.set(key, id)
    parent = id
  }
  return parent
}

/**
 * Begins to take the chosen items of a staged file into the bank. They are added unseen, some at a time, so that it can be
 * watched and stopped; one change at the end makes all of them visible, or none.
 * @returns what goes on; the caller may wait for it or not
 */
export async function beginTaking(database: Database, person: Person, batchId: string, chosen: readonly number[], now: Instant): Promise<{ total: number, done: Promise<void> }> {
  const { items } = await loadBatch(database, person, batchId)
  const taken = [...new Set(chosen)].flatMap((i) => items[i] ?? []).filter((item) => item.question)
  if (!taken.length) throw new Problem(422, 'nothing', 'Choose at least one question that can be read.')
  const won = await database.run('UPDATE import_batch SET state = \'running\', progress = 0, total = ?, touched_at = ? WHERE id = ? AND state = \'staged\'', [taken.length, toSql(now), batchId])
  if (!won) throw new Problem(409, 'import', 'This import is under way or done already.')
  return { total: taken.length, done: run(database, person, batchId, taken, now).catch(async (error: unknown) => { await drop(database, batchId); throw error }) }
}

async function run(database: Database, person: Person, batchId: string, taken: readonly StagedItem[], now: Instant): Promise<void> {
  const fresh = taken.filter((item) => item.fate !== 'changed' && item.fate !== 'same')
  const changes = taken.filter((item) => item.fate === 'changed')
  const folders = new Map<string, string>()
  const added: { id: string, item: StagedItem }[] = []
  for (let from = 0; from < fresh.length; from += atOnce) {
    const part = fresh.slice(from, from + atOnce).map((item) => ({ id: newId(), item }))
    await database.transaction(async (db) => {
      const rows: NewQuestion[] = []
      for (const { id, item } of part) rows.push({ id, question: item.question!, keeping: { folder: await folderFor(db, person.school, item.folder, folders), sharing: 'staged' } })
      await insertQuestions(db, person, rows, now)
      await db.run('UPDATE question SET import_id = ? WHERE id IN (?)', [batchId, part.map(({ id }) => id)])
      await db.run('UPDATE import_batch SET progress = progress + ? WHERE id = ?', [part.length, batchId])
    })
    added.push(...part)
    const state = await database.one<{ state: string }>('SELECT state FROM import_batch WHERE id = ?', [batchId])
    if (state?.state === 'stopping') return drop(database, batchId)
  }
  await database.transaction(async (db) => {
    const result: Result = { added: added.map(({ id }) => id), changed: await applyChanges(db, person, changes, now) }
    const outside = added.flatMap(({ id, item }) => (item.outsideId ? [[person.school, item.outsideId, id]] : []))
    if (outside.length) await db.run('INSERT INTO question_outside (school_id, outside_id, question_id) VALUES ? ON DUPLICATE KEY UPDATE question_id = VALUES(question_id)', [outside])
    await db.run('UPDATE question SET sharing = \'school\' WHERE import_id = ?', [batchId])
    const won = await db.run('UPDATE import_batch SET state = \'done\', progress = total, result = ? WHERE id = ? AND state IN (\'running\', \'stopping\')', [toJson(result), batchId])
    if (!won) throw new Problem(409, 'import', 'This import was ended elsewhere.')
    await recordLine(db, now, person.id, 'questions imported', batchId, { added: result.added.length, changed: result.changed.length })
  })
}

async function applyChanges(db: Db, person: Person, changes: readonly StagedItem[], now: Instant): Promise<Result['changed']> {
  const ids = changes.flatMap((item) => item.existing ?? [])
  const [current, may] = [await loadQuestions(db, person.school, ids), await writable(db, person, ids)]
  const done: Result['changed'] = []
  for (const item of changes) {
    const there = item.existing ? current.get(item.existing) : undefined
    if (there && may.has(item.existing!) && await insertVersion(db, person, item.existing!, there.version, { ...item.question!, objectives: there.question.objectives }, now)) done.push({ id: item.existing!, version: there.version })
  }
  return done
}

/** Takes away what an import has added unseen; it can be begun again. */
async function drop(database: Database, batchId: string): Promise<void> {
  const rows = await database.rows<{ id: string }>('SELECT id FROM question WHERE import_id = ? AND sharing = \'staged\'', [batchId])
  for (let from = 0; from < rows.length; from += 500) await database.transaction((db) => remove(db, rows.slice(from, from + 500).map(({ id }) => id)))
  await database.run('UPDATE import_batch SET state = \'staged\', progress = 0 WHERE id = ?', [batchId])
}

async function remove(db: Db, ids: readonly string[]): Promise<void> {
  if (!ids.length) return
  for (const table of ['question_word', 'question_tag', 'question_objective', 'question_outside', 'question_version', 'question_remark', 'question_share']) await db.run(`DELETE FROM ${table} WHERE question_id IN (?)`, [ids])
  await db.run('DELETE FROM question WHERE id IN (?)', [ids])
}

/** Asks an import to stop: what it has added so far is taken away. */
export async function stopTaking(db: Db, person: Person, batchId: string): Promise<void> {
  await loadBatch(db, person, batchId)
  await db.run('UPDATE import_batch SET state = \'stopping\' WHERE id = ? AND state = \'running\'', [batchId])
}

/** Takes a finished import back. What a quiz holds by now, or somebody has changed since, stays. */
export async function undoImport(database: Database, person: Person, batchId: string, now: Instant): Promise<{ removed: number, kept: number }> {
  return database.transaction(async (db) => {
    const batch = await loadBatch(db, person, batchId)
    const won = await db.run('UPDATE import_batch SET state = \'undone\' WHERE id = ? AND person_id = ? AND state = \'done\'', [batchId, person.id])
    if (!won || !batch.result) throw new Problem(409, 'import', 'Only an import that is done can be taken back.')
    const { added, changed } = fromJson<Result>(batch.result)
    const used = added.length ? await db.rows<{ id: string }>('SELECT id FROM question q WHERE q.id IN (?) AND (q.version > 1 OR EXISTS (SELECT 1 FROM quiz_question u WHERE u.question_id = q.id) OR EXISTS (SELECT 1 FROM mark m WHERE m.question_id = q.id))', [added]) : []
    const kept = new Set(used.map(({ id }) => id))
    await remove(db, added.filter((id) => !kept.has(id)))
    let back = 0
    for (const { id, version } of changed) {
      const row = await db.one<{ body: string }>('SELECT body FROM question_version WHERE question_id = ? AND version = ?', [id, version])
      if (row && await insertVersion(db, person, id, version + 1, fromJson(row.body), now)) back++
    }
    await recordLine(db, now, person.id, 'import taken back', batchId, { removed: added.length - kept.size + back })
    return { removed: added.length - kept.size + back, kept: kept.size + changed.length - back }
  })
}
