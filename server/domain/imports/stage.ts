import { mediaAddress, readFile, UnreadableFile, type BundleItem } from '../../../formats'
import type { Instant } from '../../../core/kit/time'
import { kindOf, plainText, question as questionSchema, questionFaults, type KindName, type Question } from '../../../core/question'
import { nearKey } from '../../../core/question/near'
import { fromJson, toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { addMedia } from '../bank/media'
import { loadQuestions, prepared } from '../bank/questions'
import { newId } from '../ids'
import type { Person } from '../people/people'
import { notFound, Problem } from '../problem'

/** What would become of one item. Near-duplicates are new ones that look like something in the bank. */
export type Fate = 'new' | 'changed' | 'same' | 'broken' | 'near'

export interface StagedItem {
  place: string, outsideId: string | null, fate: Fate, problem: string | null, notes: string[], folder: string[]
  kind: KindName | null, title: string, key: string
  /** The question that it would change, or is like. */
  existing: string | null
  question: Question | null
}

export type StagedLine = Omit<StagedItem, 'question'>
export interface Batch { id: string, name: string, state: 'staged' | 'running' | 'stopping' | 'done' | 'undone', progress: number, total: number, items: StagedLine[] }

/** Media of the file, kept once; texts then name the school's addresses. */
async function keepMedia(db: Db, person: Person, media: ReadonlyMap<string, Uint8Array>, now: Instant): Promise<{ addresses: Map<string, string>, refused: Map<string, string> }> {
  const addresses = new Map<string, string>()
  const refused = new Map<string, string>()
  for (const [digest, bytes] of media) {
    try {
      addresses.set(digest, (await addMedia(db, person, Buffer.from(bytes), now)).src)
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      refused.set(digest, error.sentence)
    }
  }
  return { addresses, refused }
}

/** Cleans and checks what a file says, as if it had been typed. */
function checked(item: BundleItem, media: { addresses: Map<string, string>, refused: Map<string, string> }, objectiveOf: Map<string, string>): BundleItem {
  if (!item.question) return item
  const notes = [...item.notes]
  const text = JSON.stringify(item.question).replace(mediaAddress, (whole, digest: string) => {
    const refusal = media.refused.get(digest)
    if (refusal) notes.push(`A picture, sound or film is left out: ${refusal}`)
    return media.addresses.get(digest) ?? whole
  })
  const objectives = item.objectives.flatMap((name) => objectiveOf.get(name.toLowerCase()) ?? [])
  const missing = item.objectives.filter((name) => !objectiveOf.has(name.toLowerCase()))
  if (missing.length) notes.push(`Objectives that this school does not have are left out: ${missing.join(', ')}.`)
  const read = questionSchema.safeParse({ ...JSON.parse(text) as object, objectives: objectives.slice(0, 10), stimulus: null })
  if (!read.success) return { ...item, question: null, problem: read.error.issues[0]?.message ?? 'This question cannot be read.', notes }
  try {
    return { ...item, question: prepared(read.data), notes: [...notes, ...questionFaults(read.data)] }
  } catch (error) {
    if (error instanceof Problem) return { ...item, question: null, problem: error.sentence, notes }
    throw error
  }
}

async function objectiveNames(db: Db, school: string): Promise<Map<string, string>> {
  const rows = await db.rows<{ id: string, code: string, title: string }>('SELECT id, code, title FROM objective WHERE school_id = ?', [school])
  return new Map(rows.flatMap(({ id, code, title }) => [[code.toLowerCase(), id], [title.toLowerCase(), id], [`${code} ${title}`.toLowerCase(), id]] as const))
}

/** What each item would do to the bank. */
async function fates(db: Db, person: Person, items: readonly BundleItem[]): Promise<StagedItem[]> {
  const outside = items.flatMap((item) => item.outsideId ?? [])
  const known = outside.length ? await db.rows<{ outside_id: string, question_id: string }>('SELECT outside_id, question_id FROM question_outside WHERE school_id = ? AND outside_id IN (?)', [person.school, outside]) : []
  const knownAs = new Map(known.map((row) => [row.outside_id, row.question_id]))
  const [current, keys] = [await loadQuestions(db, person.school, [...knownAs.values()]), items.flatMap((item) => (item.question && nearKey(item.question) ? [nearKey(item.question)] : []))]
  const near = keys.length ? await db.rows<{ id: string, near_key: string }>('SELECT MIN(id) AS id, near_key FROM question WHERE school_id = ? AND near_key IN (?) AND sharing <> \'staged\' GROUP BY near_key', [person.school, keys]) : []
  const nearBy = new Map(near.map((row) => [row.near_key, row.id]))
  // Through the schema, so that the order of what is said makes no difference.
  const body = (question: Question) => toJson(questionSchema.safeParse({ ...question, objectives: [] }).data ?? question)
  return items.map((item): StagedItem => {
    const { question } = item
    const base = { place: item.place, outsideId: item.outsideId, problem: item.problem, notes: item.notes, folder: item.folder, question }
    if (!question) return { ...base, fate: 'broken', kind: null, title: '', key: '', existing: null }
    const about = { kind: question.kind, title: plainText(question.stem).slice(0, 200), key: kindOf(question.kind).keyText(question.body).slice(0, 200) }
    const existing = item.outsideId ? knownAs.get(item.outsideId) ?? null : null
    const there = existing ? current.get(existing) : undefined
    if (existing && there) return { ...base, ...about, existing, fate: body(there.question) === body(question) ? 'same' : 'changed' }
    const alike = nearBy.get(nearKey(question)) ?? null
    return { ...base, ...about, existing: alike, fate: alike ? 'near' : 'new' }
  })
}

/** Reads a file and shows what would come; nothing is in the bank yet. */
export async function stageFile(database: Database, person: Person, bytes: Buffer, name: string, now: Instant): Promise<Batch> {
  let bundle
  try {
    bundle = readFile(bytes, name)
  } catch (error) {
    if (error instanceof UnreadableFile) throw new Problem(422, 'file', error.message)
    throw error
  }
  const [media, objectives] = [await keepMedia(database, person, bundle.media, now), await objectiveNames(database, person.school)]
  const items = await fates(database, person, bundle.items.map((item) => checked(item, media, objectives)))
  const id = newId()
  await database.run('INSERT INTO import_batch (id, school_id, person_id, name, made_at, state, touched_at, body) VALUES (?, ?, ?, ?, ?, \'staged\', ?, ?)', [id, person.school, person.id, name.slice(0, 200), toSql(now), toSql(now), toJson(items)])
  return { id, name, state: 'staged', progress: 0, total: 0, items: items.map(line) }
}

const line = ({ question: _question, ...rest }: StagedItem): StagedLine => rest

export interface BatchRow { id: string, state: Batch['state'], progress: number, total: number, items: StagedItem[], name: string, result: string | null }

export async function loadBatch(db: Db, person: Person, id: string): Promise<BatchRow> {
  const row = await db.one<{ id: string, name: string, state: Batch['state'], progress: number, total: number, body: string, result: string | null }>('SELECT id, name, state, progress, total, body, result FROM import_batch WHERE id = ? AND person_id = ?', [id, person.id])
  if (!row) throw notFound('This import')
  return { ...row, items: fromJson<StagedItem[]>(row.body) }
}

export async function viewBatch(db: Db, person: Person, id: string): Promise<Batch> {
  const { items, name, state, progress, total } = await loadBatch(db, person, id)
  return { id, name, state, progress, total, items: items.map(line) }
}

/** How far an import is: for a page that asks often. */
export async function batchProgress(db: Db, person: Person, id: string): Promise<Pick<Batch, 'state' | 'progress' | 'total'>> {
  const row = await db.one<Pick<Batch, 'state' | 'progress' | 'total'>>('SELECT state, progress, total FROM import_batch WHERE id = ? AND person_id = ?', [id, person.id])
  if (!row) throw notFound('This import')
  return row
}
