import type { Instant } from '../../../core/kit/time'
import { fromJson, toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { writable } from '../bank/access'
import { insertQuestions, insertVersion, loadQuestions, type NewQuestion } from '../bank/questions'
import { addStimulus } from '../bank/stimuli'
import { newId } from '../ids'
import type { Person } from '../people/people'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { knownStimuli, loadBatch, type ImportResult, type Staged, type StagedItem } from './stage'
import { makeQuizzes } from './tests'

const atOnce = 200

/** Folders by their names from the top; those that are missing are made. */
async function folderFor(
  db: Db,
  school: string,
  path: readonly string[],
  known: Map<string, string>,
): Promise<string | null> {
  let parent: string | null = null
  for (const [depth, raw] of path.entries()) {
    const name = raw.slice(0, 120)
    const key = path.slice(0, depth + 1).join('\u0000')
    const there: string | undefined =
      known.get(key) ??
      (
        await db.one<{ id: string }>(
          `SELECT id FROM folder WHERE school_id = ? AND name = ? AND parent_id ${parent ? '= ?' : 'IS NULL'}`,
          parent ? [school, name, parent] : [school, name],
        )
      )?.id
    const id: string = there ?? newId()
    if (!there)
      await db.run('INSERT INTO folder (id, school_id, parent_id, name) VALUES (?, ?, ?, ?)', [
        id,
        school,
        parent,
        name,
      ])
    known.set(key, id)
    parent = id
  }
  return parent
}

/**
 * Begins to take the chosen items of a staged file into the bank. They are added unseen, some at a time, so that it can be
 * watched and stopped; one change at the end makes all of them visible, or none.
 * @param tests those of the file's tests that become quizzes
 * @returns what goes on; the caller may wait for it or not
 */
export async function beginTaking(
  database: Database,
  person: Person,
  batchId: string,
  chosen: readonly number[],
  now: Instant,
  tests: readonly number[] = [],
): Promise<{ total: number; done: Promise<void> }> {
  const { staged } = await loadBatch(database, person, batchId)
  const taken = [...new Set(chosen)].flatMap((i) => staged.items[i] ?? []).filter((item) => item.question)
  if (!taken.length) throw new Problem(422, 'nothing', 'Choose at least one question that can be read.')
  const won = await database.run(
    "UPDATE import_batch SET state = 'running', progress = 0, total = ?, touched_at = ? WHERE id = ? AND state = 'staged'",
    [taken.length, toSql(now), batchId],
  )
  if (!won) throw new Problem(409, 'import', 'This import is under way or done already.')
  return {
    total: taken.length,
    done: run(
      database,
      person,
      batchId,
      staged,
      taken,
      [...new Set(tests)].flatMap((i) => staged.tests[i] ?? []),
      now,
    ).catch(async (error: unknown) => {
      await drop(database, batchId)
      throw error
    }),
  }
}

async function run(
  database: Database,
  person: Person,
  batchId: string,
  staged: Staged,
  taken: readonly StagedItem[],
  tests: Staged['tests'],
  now: Instant,
): Promise<void> {
  const stimuli = await bringStimuli(database, person, staged, taken, now)
  const placed = (item: StagedItem): StagedItem => ({
    ...item,
    question: { ...item.question!, stimulus: item.stimulus === null ? null : (stimuli.ids.get(item.stimulus) ?? null) },
  })
  const fresh = taken.filter((item) => item.fate !== 'changed' && item.fate !== 'same').map(placed)
  const changes = taken.filter((item) => item.fate === 'changed').map(placed)
  const folders = new Map<string, string>()
  const added: { id: string; item: StagedItem }[] = []
  for (let from = 0; from < fresh.length; from += atOnce) {
    const part = fresh.slice(from, from + atOnce).map((item) => ({ id: newId(), item }))
    await database.transaction(async (db) => {
      const rows: NewQuestion[] = []
      for (const { id, item } of part)
        rows.push({
          id,
          question: item.question!,
          keeping: { folder: await folderFor(db, person.school, item.folder, folders), sharing: 'staged' },
        })
      await insertQuestions(db, person, rows, now)
      await db.run('UPDATE question SET import_id = ? WHERE id IN (?)', [batchId, part.map(({ id }) => id)])
      await db.run('UPDATE import_batch SET progress = progress + ? WHERE id = ?', [part.length, batchId])
    })
    added.push(...part)
    const state = await database.one<{ state: string }>('SELECT state FROM import_batch WHERE id = ?', [batchId])
    if (state?.state === 'stopping') {
      await drop(database, batchId)
      return dropStimuli(database, stimuli.added)
    }
  }
  await database.transaction(async (db) => {
    const changed = await applyChanges(db, person, changes, now)
    const outside = added.flatMap(({ id, item }) => (item.outsideId ? [[person.school, item.outsideId, id]] : []))
    if (outside.length)
      await db.run(
        'INSERT INTO question_outside (school_id, outside_id, question_id) VALUES ? ON DUPLICATE KEY UPDATE question_id = VALUES(question_id)',
        [outside],
      )
    await db.run("UPDATE question SET sharing = 'school' WHERE import_id = ?", [batchId])
    const there = staged.items.flatMap((item) =>
      item.existing && item.fate !== 'near' && item.question ? [{ id: item.existing, item }] : [],
    )
    const made = await makeQuizzes(
      db,
      person,
      tests,
      new Map(
        [...there, ...added].map(({ id, item }) => [
          item.place,
          {
            id,
            points: item.question!.points,
            stimulus: item.stimulus === null ? null : (stimuli.ids.get(item.stimulus) ?? null),
          },
        ]),
      ),
      now,
    )
    const titles = made.length
      ? await db.rows<{ id: string; title: string }>('SELECT id, title FROM quiz WHERE id IN (?)', [made])
      : []
    const result: ImportResult = { added: added.map(({ id }) => id), changed, stimuli: stimuli.added, quizzes: titles }
    const won = await db.run(
      "UPDATE import_batch SET state = 'done', progress = total, result = ? WHERE id = ? AND state IN ('running', 'stopping')",
      [toJson(result), batchId],
    )
    if (!won) throw new Problem(409, 'import', 'This import was ended elsewhere.')
    await recordLine(db, now, person.id, 'questions imported', batchId, {
      added: result.added.length,
      changed: result.changed.length,
    })
  })
}

/** Stimuli that the taken items share and the school does not have yet. Nobody meets them before a question does. */
async function bringStimuli(
  database: Database,
  person: Person,
  { stimuli }: Staged,
  taken: readonly StagedItem[],
  now: Instant,
): Promise<{ ids: Map<string, string>; added: string[] }> {
  const names = [...new Set(taken.flatMap((item) => item.stimulus ?? []))].filter((name) => stimuli[name])
  return database.transaction(async (db) => {
    const ids = await knownStimuli(db, person.school, Object.keys(stimuli))
    const added: string[] = []
    for (const name of names.filter((each) => !ids.has(each))) {
      const { id } = await addStimulus(db, person, stimuli[name]!, now, undefined, name)
      ids.set(name, id)
      added.push(id)
    }
    return { ids, added }
  })
}

/** Takes away stimuli that no question has any more. */
async function dropStimuli(db: Db, ids: readonly string[]): Promise<void> {
  if (!ids.length) return
  const used = new Set(
    (
      await db.rows<{ stimulus_id: string }>('SELECT DISTINCT stimulus_id FROM question WHERE stimulus_id IN (?)', [
        ids,
      ])
    ).map((row) => row.stimulus_id),
  )
  const free = ids.filter((id) => !used.has(id))
  if (!free.length) return
  await db.run('DELETE FROM stimulus_version WHERE stimulus_id IN (?)', [free])
  await db.run('DELETE FROM stimulus WHERE id IN (?)', [free])
}

/** Quizzes that nobody has touched since the import made them. @returns those that stay */
async function dropQuizzes(db: Db, ids: readonly string[]): Promise<string[]> {
  if (!ids.length) return []
  const untouched = (
    await db.rows<{ id: string }>("SELECT id FROM quiz WHERE id IN (?) AND state = 'draft' AND revision = 0", [ids])
  ).map((row) => row.id)
  if (untouched.length) {
    await db.run('DELETE FROM quiz_question WHERE quiz_id IN (?)', [untouched])
    await db.run('DELETE FROM quiz_class WHERE quiz_id IN (?)', [untouched])
    await db.run('DELETE FROM quiz_teacher WHERE quiz_id IN (?)', [untouched])
    await db.run('DELETE FROM quiz WHERE id IN (?)', [untouched])
  }
  return ids.filter((id) => !untouched.includes(id))
}

async function applyChanges(
  db: Db,
  person: Person,
  changes: readonly StagedItem[],
  now: Instant,
): Promise<ImportResult['changed']> {
  const ids = changes.flatMap((item) => item.existing ?? [])
  const [current, may] = [await loadQuestions(db, person.school, ids), await writable(db, person, ids)]
  const done: ImportResult['changed'] = []
  for (const item of changes) {
    const there = item.existing ? current.get(item.existing) : undefined
    if (
      there &&
      may.has(item.existing!) &&
      (await insertVersion(
        db,
        person,
        item.existing!,
        there.version,
        { ...item.question!, objectives: there.question.objectives },
        now,
      ))
    )
      done.push({ id: item.existing!, version: there.version })
  }
  return done
}

/** Takes away what an import has added unseen; it can be begun again. */
async function drop(database: Database, batchId: string): Promise<void> {
  const rows = await database.rows<{ id: string }>(
    "SELECT id FROM question WHERE import_id = ? AND sharing = 'staged'",
    [batchId],
  )
  for (let from = 0; from < rows.length; from += 500)
    await database.transaction((db) =>
      remove(
        db,
        rows.slice(from, from + 500).map(({ id }) => id),
      ),
    )
  await database.run("UPDATE import_batch SET state = 'staged', progress = 0 WHERE id = ?", [batchId])
}

async function remove(db: Db, ids: readonly string[]): Promise<void> {
  if (!ids.length) return
  for (const table of [
    'question_word',
    'question_tag',
    'question_objective',
    'question_outside',
    'question_version',
    'question_remark',
    'question_share',
  ])
    await db.run(`DELETE FROM ${table} WHERE question_id IN (?)`, [ids])
  await db.run('DELETE FROM question WHERE id IN (?)', [ids])
}

/** Asks an import to stop: what it has added so far is taken away. */
export async function stopTaking(db: Db, person: Person, batchId: string): Promise<void> {
  await loadBatch(db, person, batchId)
  await db.run("UPDATE import_batch SET state = 'stopping' WHERE id = ? AND state = 'running'", [batchId])
}

/** Takes a finished import back. What a quiz holds by now, or somebody has changed since, stays. */
export async function undoImport(
  database: Database,
  person: Person,
  batchId: string,
  now: Instant,
): Promise<{ removed: number; kept: number; quizzes: number }> {
  return database.transaction(async (db) => {
    const batch = await loadBatch(db, person, batchId)
    const won = await db.run(
      "UPDATE import_batch SET state = 'undone' WHERE id = ? AND person_id = ? AND state = 'done'",
      [batchId, person.id],
    )
    if (!won || !batch.result) throw new Problem(409, 'import', 'Only an import that is done can be taken back.')
    const { added, changed, stimuli, quizzes } = batch.result
    const staying = await dropQuizzes(
      db,
      quizzes.map(({ id }) => id),
    )
    const used = added.length
      ? await db.rows<{ id: string }>(
          'SELECT id FROM question q WHERE q.id IN (?) AND (q.version > 1 OR EXISTS (SELECT 1 FROM quiz_question u WHERE u.question_id = q.id) OR EXISTS (SELECT 1 FROM mark m WHERE m.question_id = q.id))',
          [added],
        )
      : []
    const kept = new Set(used.map(({ id }) => id))
    await remove(
      db,
      added.filter((id) => !kept.has(id)),
    )
    await dropStimuli(db, stimuli)
    let back = 0
    for (const { id, version } of changed) {
      const row = await db.one<{ body: string }>(
        'SELECT body FROM question_version WHERE question_id = ? AND version = ?',
        [id, version],
      )
      if (row && (await insertVersion(db, person, id, version + 1, fromJson(row.body), now))) back++
    }
    await recordLine(db, now, person.id, 'import taken back', batchId, { removed: added.length - kept.size + back })
    return {
      removed: added.length - kept.size + back,
      kept: kept.size + changed.length - back,
      quizzes: staying.length,
    }
  })
}
