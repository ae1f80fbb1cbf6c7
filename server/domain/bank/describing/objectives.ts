import type { ObjectiveNeedRow, ObjectiveRow, QuestionObjectiveRow, SchoolRow } from '../../../database/tables'
import { z } from 'zod'
import { id } from '../../../../core/question'
import type { Instant } from '../../../../core/kit/time'
import { UnreadableFile } from '../../../../formats'
import {
  readObjectives,
  writeCase,
  writeObjectivesCsv,
  type KeptObjective,
  type PortableObjective,
} from '../../../../formats/objectives'
import { toJson } from '../../../database/codec'
import { readOwn } from '../../../documents/read'
import { inBatches } from '../../../database/batches'
import { byKey } from '../../../database/by-key'
import type { Database, Db } from '../../../database/database'
import { grouped } from '../../grouped'
import { newId } from '../../ids'
import type { Person } from '../../../people/people'
import { notFound, Problem } from '../../problem'
import { recordLine } from '../../record'
import { indexQuestions } from '../questions/rows'
import { loadQuestions } from '../questions/questions'

export const objectiveBody = z.strictObject({
  code: z.string().trim().max(40, 'A code has at most 40 characters.'),
  title: z.string().trim().min(1, 'Say what the objective is.').max(1000, 'An objective has at most 1,000 characters.'),
  parent: id.nullable(),
  /** Nobody passes without it, whatever the points say: for the teacher to know. */
  essential: z.boolean(),
  /** Objectives to be reached first. */
  needs: z.array(id).max(40),
})
export type ObjectiveBody = z.infer<typeof objectiveBody>
export const objectivesFile = z.enum(['case', 'csv'])

export interface Objective extends ObjectiveBody {
  id: string
}

/** In the order of a tree; beside one another by their codes, 1.10 after 1.9. */
function inOrder(objectives: Objective[]): Objective[] {
  const collator = new Intl.Collator('en', { numeric: true })
  const children = grouped(objectives, (each) => each.parent ?? '')
  const under = (parent: string): Objective[] =>
    [...(children.get(parent) ?? [])]
      .sort((a, b) => collator.compare(a.code || a.title, b.code || b.title))
      .flatMap((each) => [each, ...under(each.id)])
  return under('')
}

/** The school's objectives, each parent before its children, with those that each needs first. */
export async function listObjectives(db: Db, person: Pick<Person, 'school'>): Promise<Objective[]> {
  const [rows, needs] = await Promise.all([
    db.rows<Pick<ObjectiveRow, 'id' | 'code' | 'title' | 'essential'> & { parent: string | null }>(
      'SELECT id, parent_id AS parent, code, title, essential FROM objective WHERE school_id = ?',
      [person.school],
    ),
    db.rows<Pick<ObjectiveNeedRow, 'objective_id' | 'needs_id'>>(
      'SELECT n.objective_id, n.needs_id FROM objective_need n JOIN objective o ON o.id = n.objective_id WHERE o.school_id = ?',
      [person.school],
    ),
  ])
  const needsOf = grouped(needs, (each) => each.objective_id)
  return inOrder(
    rows.map((row) => ({
      ...row,
      essential: Boolean(row.essential),
      needs: (needsOf.get(row.id) ?? []).map((each) => each.needs_id),
    })),
  )
}

/** What would make a circle: an objective under itself, or needed by what it needs. */
function ensureNoCircle(objectives: readonly Objective[], own: string, body: ObjectiveBody): void {
  const known = new Map(objectives.map((each) => [each.id, each]))
  const missing = [body.parent, ...body.needs].find((each) => each !== null && !known.has(each))
  if (missing) throw new Problem(422, 'objective', 'One of the objectives named is no longer there. Choose it anew.')
  for (let at = body.parent; at !== null; at = known.get(at)!.parent)
    if (at === own) throw new Problem(422, 'circle', 'An objective cannot lie within itself.')
  const waiting = [...body.needs]
  const seen = new Set<string>()
  while (waiting.length) {
    const next = waiting.pop()!
    if (next === own)
      throw new Problem(422, 'circle', 'An objective cannot need itself first, not by way of others either.')
    if (!seen.has(next)) waiting.push(...(known.get(next)?.needs ?? []))
    seen.add(next)
  }
}

/** Whether some objectives need one another in a circle: those that need nothing are taken away until none is left, or none can be. */
function needEachOther(objectives: readonly Objective[]): boolean {
  const open = new Map(objectives.map((each) => [each.id, each.needs.length]))
  const neededBy = new Map<string, string[]>()
  for (const each of objectives)
    for (const need of each.needs) neededBy.set(need, [...(neededBy.get(need) ?? []), each.id])
  const free = objectives.filter((each) => !each.needs.length).map((each) => each.id)
  for (let next = free.pop(); next !== undefined; next = free.pop()) {
    open.delete(next)
    for (const id of neededBy.get(next) ?? []) {
      open.set(id, open.get(id)! - 1)
      if (open.get(id) === 0) free.push(id)
    }
  }
  return open.size > 0
}

/** What objectives need first, in place of what was there. */
async function keepNeeds(db: Db, needs: readonly { objective: string; needs: readonly string[] }[]): Promise<void> {
  if (!needs.length) return
  await db.run('DELETE FROM objective_need WHERE objective_id IN (?)', [needs.map(({ objective }) => objective)])
  const rows = needs.flatMap(({ objective, needs: each }) => [...new Set(each)].map((need) => [objective, need]))
  if (rows.length) await db.run('INSERT INTO objective_need (objective_id, needs_id) VALUES ?', [rows])
}

/**
 * Makes an objective with what it needs first. Refuses a parent or a need that the school does not have or that leads
 * back to it.
 */
export async function addObjective(
  database: Database,
  person: Person,
  body: ObjectiveBody,
  now: Instant,
  made = newId(),
): Promise<{ id: string }> {
  return database.transaction(async (db) => {
    ensureNoCircle(await listObjectives(db, person), made, body)
    await db.run('INSERT INTO objective (id, school_id, parent_id, code, title, essential) VALUES (?, ?, ?, ?, ?, ?)', [
      made,
      person.school,
      body.parent,
      body.code,
      body.title,
      body.essential,
    ])
    await keepNeeds(db, [{ objective: made, needs: body.needs }])
    await recordLine(db, now, person.id, 'objective added', made)
    return { id: made }
  })
}

/** Changes an objective. Its words are searched with its questions, so these are entered anew. */
export async function changeObjective(
  database: Database,
  person: Person,
  objective: string,
  body: ObjectiveBody,
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    const all = await listObjectives(db, person)
    const before = all.find((each) => each.id === objective)
    if (!before) throw notFound('This objective')
    ensureNoCircle(all, objective, body)
    await db.run('UPDATE objective SET parent_id = ?, code = ?, title = ?, essential = ? WHERE id = ?', [
      body.parent,
      body.code,
      body.title,
      body.essential,
      objective,
    ])
    await keepNeeds(db, [{ objective, needs: body.needs }])
    await recordLine(db, now, person.id, 'objective changed', objective)
    if (before.title !== body.title) await enterAnew(db, person.school, [objective])
  })
}

/** Enters questions of objectives anew, whose titles are among the words that find them. */
async function enterAnew(db: Db, school: string, objectives: readonly string[]): Promise<void> {
  if (!objectives.length) return
  const rows = await db.rows<Pick<QuestionObjectiveRow, 'question_id'>>(
    'SELECT DISTINCT question_id FROM question_objective WHERE objective_id IN (?)',
    [objectives],
  )
  await inBatches(rows, 500, async (part) => {
    const found = await loadQuestions(
      db,
      school,
      part.map((row) => row.question_id),
    )
    await indexQuestions(
      db,
      [...found].map(([question, { question: body }]) => ({ id: question, question: body })),
    )
  })
}

/** Takes away an objective that no question has and nothing lies under. */
export async function removeObjective(
  database: Database,
  person: Person,
  objective: string,
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    if (
      !(await db.one('SELECT id FROM objective WHERE id = ? AND school_id = ? FOR UPDATE', [objective, person.school]))
    )
      throw notFound('This objective')
    const { questions, under } = (await db.one<{ questions: number; under: number }>(
      'SELECT (SELECT COUNT(*) FROM question_objective WHERE objective_id = ?) AS questions, (SELECT COUNT(*) FROM objective WHERE parent_id = ?) AS under',
      [objective, objective],
    ))!
    if (Number(under)) throw new Problem(409, 'in-use', 'Other objectives lie under this one. Move them first.')
    if (Number(questions))
      throw new Problem(
        409,
        'in-use',
        `${questions} ${Number(questions) === 1 ? 'question has' : 'questions have'} this objective. Give them another first: the bank finds them by its filter.`,
      )
    await db.run('DELETE FROM objective_need WHERE objective_id = ? OR needs_id = ?', [objective, objective])
    await db.run('DELETE FROM objective WHERE id = ?', [objective])
    await recordLine(db, now, person.id, 'objective taken away', objective)
  })
}

export interface ObjectiveFate {
  code: string
  title: string
  depth: number
  fate: 'new' | 'changed' | 'same'
}

interface Known {
  id: string
  outside_id: string | null
  code: string
  title: string
  parent_id: string | null
}
const knownBy = (rows: readonly Known[]) => ({
  outside: new Map(rows.flatMap((row) => (row.outside_id === null ? [] : [[row.outside_id, row]]))),
  code: new Map(rows.filter((row) => row.code).map((row) => [row.code, row])),
})

async function known(db: Db, person: Person): Promise<(each: PortableObjective) => Known | undefined> {
  const { outside, code } = knownBy(
    await db.rows<Known>('SELECT id, outside_id, code, title, parent_id FROM objective WHERE school_id = ?', [
      person.school,
    ]),
  )
  return (each) => outside.get(each.name) ?? (each.code ? code.get(each.code) : undefined)
}

function readFileOf(bytes: Uint8Array): PortableObjective[] {
  try {
    const read = readObjectives(bytes)
    if (!read.length) throw new Problem(422, 'file', 'There is no objective in this file.')
    return read
  } catch (error) {
    if (error instanceof UnreadableFile) throw new Problem(422, 'file', error.message)
    throw error
  }
}

/** How large a file of objectives may be, in bytes, and what is said of a larger one. */
export const objectivesLimit = { most: 10 * 1024 * 1024, sentence: 'A file of objectives may have at most 10 MB.' }

/** What a file of objectives would do; nothing is kept yet. They are known again by what the file calls them, or by their codes. */
export async function lookAtObjectives(db: Db, person: Person, bytes: Uint8Array): Promise<ObjectiveFate[]> {
  const [read, find] = [readFileOf(bytes), await known(db, person)]
  const depths = new Map<string | null, number>([[null, -1]])
  return read.map((each) => {
    const depth = (depths.get(each.parent) ?? -1) + 1
    depths.set(each.name, depth)
    const there = find(each)
    return {
      code: each.code,
      title: each.title,
      depth,
      fate: !there
        ? 'new'
        : there.title === each.title && there.code === each.code && !each.essential
          ? 'same'
          : 'changed',
    }
  })
}

/** An objective of a file, with the school's own that it is, its id, and those of its parent and of what it needs. */
interface Placed {
  each: PortableObjective
  there: ReturnType<Awaited<ReturnType<typeof known>>>
  id: string
  parent: string | null
  needs: string[]
}

function placedIn(read: readonly PortableObjective[], find: Awaited<ReturnType<typeof known>>): Placed[] {
  const found = read.map((each) => ({ each, there: find(each) }))
  const ids = new Map(found.map(({ each, there }) => [each.name, there?.id ?? newId()]))
  return found.map(({ each, there }) => ({
    each,
    there,
    id: ids.get(each.name)!,
    parent: each.parent === null ? null : ids.get(each.parent)!,
    needs: each.needs.map((need) => ids.get(need)!),
  }))
}

/** Parents come before their children. */
async function insertObjectives(db: Db, school: string, placed: readonly Placed[]): Promise<void> {
  if (!placed.length) return
  await db.run('INSERT INTO objective (id, school_id, parent_id, code, title, essential, outside_id, kept) VALUES ?', [
    placed.map(({ id: made, parent, each }) => [
      made,
      school,
      parent,
      each.code,
      each.title,
      each.essential,
      outsideName(each),
      each.kept ? toJson(each.kept) : null,
    ]),
  ])
}

/** Known ones take the file's words and place. */
async function changeObjectives(db: Db, placed: readonly Placed[]): Promise<void> {
  if (!placed.length) return
  const column = (pick: (each: Placed) => string | boolean | null) =>
    byKey(
      'id',
      placed.map((each) => [each.id, pick(each)] as const),
    )
  const [parent, code, title, essential, outside, kept] = [
    column((each) => each.parent),
    column(({ each }) => each.code),
    column(({ each }) => each.title),
    column(({ each }) => each.essential),
    column(({ each }) => outsideName(each)),
    column(({ each }) => (each.kept ? toJson(each.kept) : null)),
  ]
  await db.run(
    `UPDATE objective SET parent_id = ${parent.sql}, code = ${code.sql}, title = ${title.sql},
      essential = GREATEST(essential, ${essential.sql}), outside_id = COALESCE(outside_id, ${outside.sql}),
      kept = COALESCE(${kept.sql}, kept) WHERE id IN (?)`,
    [
      ...[parent, code, title, essential, outside, kept].flatMap(({ values }) => values),
      placed.map(({ id: made }) => made),
    ],
  )
}

/** Brings a file of objectives in, all or nothing: new ones are added, known ones take the file's words and place. */
export async function importObjectives(
  database: Database,
  person: Person,
  bytes: Uint8Array,
  now: Instant,
): Promise<{ added: number; changed: number }> {
  const read = readFileOf(bytes)
  return database.transaction(async (db) => {
    const find = await known(db, person)
    const placed = placedIn(read, find)
    const isChanged = ({ there, each, parent }: Placed) =>
      there !== undefined &&
      (there.title !== each.title || there.code !== each.code || there.parent_id !== parent || each.essential)
    const [fresh, changed] = [placed.filter(({ there }) => !there), placed.filter(isChanged)]
    await insertObjectives(db, person.school, fresh)
    await changeObjectives(db, changed)
    await keepNeeds(
      db,
      placed.filter(({ each }) => each.needs.length).map(({ id: objective, needs }) => ({ objective, needs })),
    )
    const result = { added: fresh.length, changed: changed.length }
    // A file may have made a circle with what was there.
    const all = await listObjectives(db, person)
    const inTree = new Set(all.map((each) => each.id))
    if (placed.some(({ id: made }) => !inTree.has(made)))
      throw new Problem(422, 'circle', 'With this file an objective would lie within itself. Nothing was brought in.')
    if (needEachOther(all))
      throw new Problem(
        422,
        'circle',
        'With this file an objective would need itself first, by way of others. Nothing was brought in.',
      )
    await enterAnew(
      db,
      person.school,
      changed.filter(({ there, each }) => there!.title !== each.title).map(({ id: made }) => made),
    )
    await recordLine(db, now, person.id, 'objectives imported', person.school, result)
    return result
  })
}

/** Codes of a CSV are no names of their own. */
const outsideName = (each: PortableObjective): string | null =>
  each.name === each.code ? null : each.name.slice(0, 80)

/** The school's objectives as a file. */
export async function giveObjectives(
  db: Db,
  person: Person,
  as: z.infer<typeof objectivesFile>,
  now: Instant,
): Promise<{ text: string; type: string; name: string }> {
  const [all, outside, school] = [
    await listObjectives(db, person),
    await db.rows<Pick<ObjectiveRow, 'id' | 'outside_id' | 'kept'>>(
      'SELECT id, outside_id, kept FROM objective WHERE school_id = ?',
      [person.school],
    ),
    await db.one<Pick<SchoolRow, 'name'>>('SELECT name FROM school WHERE id = ?', [person.school]),
  ]
  const outsideOf = new Map(outside.map((row) => [row.id, row.outside_id]))
  const keptOf = new Map(outside.map((row) => [row.id, row.kept]))
  const codeOf = new Map(all.map((each) => [each.id, each.code || each.id]))
  const nameOf = (each: string) => (as === 'csv' ? codeOf.get(each)! : (outsideOf.get(each) ?? each))
  const portable = all.map((each): PortableObjective => ({
    name: nameOf(each.id),
    ...(as === 'case' && keptOf.get(each.id) ? { kept: readOwn<KeptObjective>(keptOf.get(each.id)!) } : {}),
    parent: each.parent && nameOf(each.parent),
    code: as === 'csv' ? codeOf.get(each.id)! : each.code,
    title: each.title,
    essential: each.essential,
    needs: each.needs.map(nameOf),
  }))
  return as === 'csv'
    ? { text: writeObjectivesCsv(portable), type: 'text/csv; charset=utf-8', name: 'objectives.csv' }
    : {
        text: writeCase(portable, school?.name ?? 'Objectives', now),
        type: 'application/json',
        name: 'objectives-case.json',
      }
}
