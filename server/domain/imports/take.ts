import type { ImportBatchRow, QuizRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { toJson, toSql } from '../../database/codec'
import { inBatches, inLanes } from '../../database/batches'
import type { Database, Db } from '../../database/database'
import { writable } from '../bank/questions/access'
import { insertQuestions, insertVersions, type NewQuestion } from '../bank/questions/rows'
import { loadQuestions } from '../bank/questions/questions'
import { addStimuli } from '../bank/material/stimuli'
import { newId } from '../ids'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { loadBatch, type ImportResult, type Staged, type StagedItem } from './batch'
import { putIntoFolders } from './into-folders'
import { knownStimuli } from './stage'
import { makeQuizzes } from './tests'
import { drop, dropStimuli } from './untake'

const atOnce = 200

/** What an import takes, and for whom. */
interface Taking {
  person: Person
  batch: string
  staged: Staged
  items: readonly StagedItem[]
  tests: Staged['tests']
}

/**
 * Begins to take the chosen items of a staged file into the bank. They are added unseen, some at a time, so that it can be
 * watched and stopped; one change at the end makes all of them visible, or none.
 * @param tests those of the file's tests that become quizzes
 * @param clock asked as it goes on: an import that has not moved for long has lost its process
 * @returns what goes on; the caller may wait for it or not
 */
export async function beginTaking(
  database: Database,
  person: Person,
  batch: string,
  chosen: readonly number[],
  clock: () => Instant,
  tests: readonly number[] = [],
): Promise<{ total: number; done: Promise<void> }> {
  const { staged } = await loadBatch(database, person, batch)
  const items = [...new Set(chosen)].flatMap((i) => staged.items[i] ?? []).filter((item) => item.question)
  if (!items.length) throw new Problem(422, 'nothing', 'Choose at least one question that can be read.')
  const won = await database.run(
    "UPDATE import_batch SET state = 'running', progress = 0, total = ?, touched_at = ? WHERE id = ? AND state = 'staged'",
    [items.length, toSql(clock()), batch],
  )
  if (!won) throw new Problem(409, 'import', 'This import is under way or done already.')
  const taking = { person, batch, staged, items, tests: [...new Set(tests)].flatMap((i) => staged.tests[i] ?? []) }
  return { total: items.length, done: take(database, taking, clock) }
}

async function take(database: Database, taking: Taking, clock: () => Instant): Promise<void> {
  const stimuli = await bringStimuli(database, taking, clock())
  try {
    const added = await addUnseen(database, taking, stimuli.ids, clock)
    if (added) return await makeVisible(database, taking, added, stimuli, clock())
  } catch (error) {
    await undoHalf(database, taking.batch, stimuli.added)
    throw error
  }
  await undoHalf(database, taking.batch, stimuli.added)
}

async function undoHalf(database: Database, batch: string, stimuli: readonly string[]): Promise<void> {
  await drop(database, [batch])
  await dropStimuli(database, stimuli)
}

interface Added {
  id: string
  item: StagedItem
}

/** The item with the stimulus that the school has for it. */
function placed(item: StagedItem, stimuli: ReadonlyMap<string, string>): StagedItem {
  const stimulus = item.stimulus === null ? null : (stimuli.get(item.stimulus) ?? null)
  return { ...item, question: { ...item.question!, stimulus } }
}

/** Adds new questions where nobody sees them yet. @returns null when it was asked to stop */
async function addUnseen(
  database: Database,
  { person, batch, items }: Taking,
  stimuli: ReadonlyMap<string, string>,
  clock: () => Instant,
): Promise<Added[] | null> {
  const fresh = items
    .filter((item) => item.fate !== 'changed' && item.fate !== 'same')
    .map((item) => placed(item, stimuli))
  const added: Added[] = []
  let stopped = false
  await inLanes(fresh, atOnce, 2, async (batchOf) => {
    if (stopped) return
    const part = batchOf.map((item) => ({ id: newId(), item }))
    const now = clock()
    await database.transaction(async (db) => {
      const keeping = { folder: null, sharing: 'staged' as const }
      const rows = part.map(({ id, item }): NewQuestion => ({ id, question: item.question!, keeping }))
      await insertQuestions(db, person, rows, now)
      await db.run('UPDATE question SET import_id = ? WHERE id IN (?)', [batch, part.map(({ id }) => id)])
      await db.run('UPDATE import_batch SET progress = progress + ?, touched_at = ? WHERE id = ?', [
        part.length,
        toSql(now),
        batch,
      ])
    })
    added.push(...part)
    const row = await database.one<Pick<ImportBatchRow, 'state'>>('SELECT state FROM import_batch WHERE id = ?', [
      batch,
    ])
    stopped = row?.state === 'stopping'
  })
  return stopped ? null : added
}

/** The one change that makes all of an import visible: questions in their folders, new versions, quizzes. */
async function makeVisible(
  database: Database,
  { person, batch, staged, items, tests }: Taking,
  added: readonly Added[],
  stimuli: { ids: ReadonlyMap<string, string>; added: string[] },
  now: Instant,
): Promise<void> {
  const changes = items.filter((item) => item.fate === 'changed').map((item) => placed(item, stimuli.ids))
  await database.transaction(async (db) => {
    const changed = await applyChanges(db, person, changes, now)
    const folders = await putIntoFolders(db, person.school, added)
    const outside = added.flatMap(({ id, item }) => (item.outsideId ? [[person.school, item.outsideId, id]] : []))
    if (outside.length)
      await db.run(
        'INSERT INTO question_outside (school_id, outside_id, question_id) VALUES ? ON DUPLICATE KEY UPDATE question_id = VALUES(question_id)',
        [outside],
      )
    await db.run("UPDATE question SET sharing = 'school' WHERE import_id = ?", [batch])
    const quizzes = await quizzesOf(db, person, staged, tests, added, stimuli.ids, now)
    const result: ImportResult = {
      added: added.map(({ id }) => id),
      changed,
      stimuli: stimuli.added,
      folders,
      quizzes,
    }
    const won = await db.run(
      "UPDATE import_batch SET state = 'done', progress = total, result = ? WHERE id = ? AND state IN ('running', 'stopping')",
      [toJson(result), batch],
    )
    if (!won) throw new Problem(409, 'import', 'This import was ended elsewhere.')
    await recordLine(db, now, person.id, 'questions imported', batch, {
      added: result.added.length,
      changed: result.changed.length,
    })
  })
}

/** The tests of the file as quizzes, of questions that have just come or were there already. */
async function quizzesOf(
  db: Db,
  person: Person,
  staged: Staged,
  tests: Staged['tests'],
  added: readonly Added[],
  stimuli: ReadonlyMap<string, string>,
  now: Instant,
): Promise<ImportResult['quizzes']> {
  const there = staged.items.flatMap((item) =>
    item.existing && item.fate !== 'near' && item.question ? [{ id: item.existing, item }] : [],
  )
  const byPlace = [...there, ...added].map(({ id, item }) => {
    const stimulus = item.stimulus === null ? null : (stimuli.get(item.stimulus) ?? null)
    return [item.place, { id, points: item.question!.points, stimulus }] as const
  })
  const made = await makeQuizzes(db, person, tests, new Map(byPlace), now)
  return made.length
    ? await db.rows<Pick<QuizRow, 'id' | 'title'>>('SELECT id, title FROM quiz WHERE id IN (?)', [made])
    : []
}

/** Stimuli that the taken items share and the school does not have yet. Nobody meets them before a question does. */
async function bringStimuli(
  database: Database,
  { person, staged: { stimuli }, items }: Taking,
  now: Instant,
): Promise<{ ids: Map<string, string>; added: string[] }> {
  const names = [...new Set(items.flatMap((item) => item.stimulus ?? []))].filter((name) => stimuli[name])
  return database.transaction(async (db) => {
    const ids = await knownStimuli(db, person.school, Object.keys(stimuli))
    const fresh = names
      .filter((name) => !ids.has(name))
      .map((name) => ({ id: newId(), stimulus: stimuli[name]!, outside: name }))
    await addStimuli(db, person, fresh, now)
    return {
      ids: new Map([...ids, ...fresh.map(({ id, outside }) => [outside, id] as const)]),
      added: fresh.map(({ id }) => id),
    }
  })
}

/** Changes of questions that are there, some at a time: those that the person may change and nobody else has just changed. */
async function applyChanges(
  db: Db,
  person: Person,
  changes: readonly StagedItem[],
  now: Instant,
): Promise<ImportResult['changed']> {
  const done: ImportResult['changed'] = []
  await inBatches(changes, atOnce, async (part) => {
    const ids = part.flatMap((item) => item.existing ?? [])
    const [current, may] = [await loadQuestions(db, person.school, ids), await writable(db, person, ids)]
    const revisions = part.flatMap((item) => {
      const there = current.get(item.existing!)
      if (!there || !may.has(item.existing!)) return []
      const question = { ...item.question!, objectives: there.question.objectives }
      return [{ id: item.existing!, on: there.version, question }]
    })
    const kept = await insertVersions(db, person, revisions, now)
    done.push(...revisions.filter(({ id }) => kept.has(id)).map(({ id, on }) => ({ id, version: on })))
  })
  return done
}
