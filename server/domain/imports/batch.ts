import type { KindName, Question, Stimulus } from '../../../core/question'
import type { PortableTest, Proof } from '../../../formats'
import { readOwn } from '../../documents/read'
import type { Db } from '../../database/database'
import type { Person } from '../../people/people'
import { notFound } from '../problem'

/** An import from its file to its end: what is staged, how far it is, what it did. */

/** What would become of one item. Near-duplicates are new ones that look like something in the bank. */
export type Fate = 'new' | 'changed' | 'same' | 'broken' | 'near'

export interface StagedItem {
  place: string
  outsideId: string | null
  fate: Fate
  problem: string | null
  notes: string[]
  folder: string[]
  kind: KindName | null
  title: string
  key: string
  /** The question that it would change, or is like. */
  existing: string | null
  /** What it shares with others, by its name in the file. */
  stimulus: string | null
  /** Whether the file scores it as it would be scored here; null where the file says nothing of that. */
  proof: Proof | null
  /** Words of the file that stand nowhere in it. */
  lost: string[]
  question: Question | null
}

export type StagedLine = Omit<StagedItem, 'question'>
/** A test of the file, that can become a quiz. */
export interface StagedTest {
  title: string
  questions: number
  notes: string[]
}
export interface Batch {
  id: string
  name: string
  state: 'staged' | 'running' | 'stopping' | 'done' | 'undone'
  progress: number
  total: number
  items: StagedLine[]
  tests: StagedTest[]
  quizzes: { id: string; title: string }[]
}

/** All that a file has brought, waiting to be taken. */
export interface Staged {
  items: StagedItem[]
  stimuli: Record<string, Stimulus>
  tests: PortableTest[]
}

export const testLine = (test: PortableTest): StagedTest => ({
  title: test.title,
  questions: test.sections.reduce((sum, section) => sum + section.rows.reduce((inner, row) => inner + row.draw, 0), 0),
  notes: test.notes,
})
export const line = ({ question: _question, ...rest }: StagedItem): StagedLine => rest

/** Items of an earlier release know of no proof. */
const completed = (item: StagedItem): StagedItem => ({
  ...item,
  stimulus: item.stimulus ?? null,
  proof: item.proof ?? null,
  lost: item.lost ?? [],
})

/** What an import did, for taking it back. */
export interface ImportResult {
  added: string[]
  changed: { id: string; version: number }[]
  stimuli: string[]
  folders: string[]
  quizzes: { id: string; title: string }[]
}

const nothingDone: ImportResult = { added: [], changed: [], stimuli: [], folders: [], quizzes: [] }
/** Batches of an earlier release hold their items alone. */
const stagedOf = (body: Staged | StagedItem[]): Staged =>
  Array.isArray(body)
    ? { items: body.map(completed), stimuli: {}, tests: [] }
    : { ...body, items: body.items.map(completed) }

export interface BatchRow {
  id: string
  state: Batch['state']
  progress: number
  total: number
  staged: Staged
  name: string
  result: ImportResult | null
}

/** A batch as it is stored. Refuses one that somebody else has staged. */
export async function loadBatch(db: Db, person: Person, id: string): Promise<BatchRow> {
  const row = await db.one<{
    id: string
    name: string
    state: Batch['state']
    progress: number
    total: number
    body: string
    result: string | null
  }>('SELECT id, name, state, progress, total, body, result FROM import_batch WHERE id = ? AND person_id = ?', [
    id,
    person.id,
  ])
  if (!row) throw notFound('This import')
  return {
    ...row,
    staged: stagedOf(readOwn<Staged | StagedItem[]>(row.body)),
    result: row.result === null ? null : { ...nothingDone, ...readOwn<Partial<ImportResult>>(row.result) },
  }
}

/** A batch as its page shows it: each question and test as a line. Refuses one that somebody else has staged. */
export async function viewBatch(db: Db, person: Person, id: string): Promise<Batch> {
  return viewOf(await loadBatch(db, person, id))
}

export function viewOf({ id, staged, name, state, progress, total, result }: BatchRow): Batch {
  return {
    id,
    name,
    state,
    progress,
    total,
    items: staged.items.map(line),
    tests: staged.tests.map(testLine),
    quizzes: result?.quizzes ?? [],
  }
}

/** A question that would come in, whole, with what it shares with others. */
export interface StagedQuestion {
  question: Question
  /** HTML. */
  shared: string
}

/** Refuses a batch that somebody else has staged, and an item that could not be read. @param index among the items of the batch */
export async function stagedQuestion(db: Db, person: Person, id: string, index: number): Promise<StagedQuestion> {
  const { staged } = await loadBatch(db, person, id)
  const item = staged.items[index]
  if (!item?.question) throw notFound('This question')
  const shared = item.stimulus === null ? undefined : staged.stimuli[item.stimulus]
  return { question: item.question, shared: shared?.html ?? '' }
}

/** How far an import is: for a page that asks often. */
export async function batchProgress(
  db: Db,
  person: Person,
  id: string,
): Promise<Pick<Batch, 'state' | 'progress' | 'total'>> {
  const row = await db.one<Pick<Batch, 'state' | 'progress' | 'total'>>(
    'SELECT state, progress, total FROM import_batch WHERE id = ? AND person_id = ?',
    [id, person.id],
  )
  if (!row) throw notFound('This import')
  return row
}
