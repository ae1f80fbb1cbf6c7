import type { ObjectiveRow, QuestionRow, StimulusRow } from '../../database/tables'
import { mediaAddress, readFile, UnreadableFile, type BundleItem } from '../../../formats'
import type { Instant } from '../../../core/kit/time'
import {
  kindOf,
  readingOf,
  question as questionSchema,
  questionFaults,
  type Question,
  type Stimulus,
} from '../../../core/question'
import { nearKey } from '../../../core/question/near'
import { toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { addManyMedia } from '../bank/material/media'
import { seenAmong } from '../bank/finding/visible'
import { loadQuestions, prepared } from '../bank/questions/questions'
import { preparedStimulus } from '../bank/material/stimuli'
import { eachText } from '../../../core/kit/each-text'
import { newId } from '../ids'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { viewOf, type Batch, type Staged, type StagedItem } from './batch'

interface KeptMedia {
  addresses: Map<string, string>
  refused: Map<string, string>
}

/** Cleans and checks what a file says, as if it had been typed. */
function checked(
  item: BundleItem,
  media: KeptMedia,
  objectiveOf: Map<string, string>,
  stimuli: ReadonlyMap<string, string>,
): BundleItem {
  if (!item.question) return item
  const notes = [...item.notes]
  const question = eachText(item.question, (text) =>
    text.replace(mediaAddress, (whole, digest: string) => {
      const refusal = media.refused.get(digest)
      if (refusal) notes.push(`A picture, sound or film is left out: ${refusal}`)
      else if (!media.addresses.has(digest))
        notes.push('A picture, sound or film that it shows is not in the file, or cannot be read.')
      return media.addresses.get(digest) ?? whole
    }),
  )
  const objectives = item.objectives.flatMap((name) => objectiveOf.get(name.toLowerCase()) ?? [])
  const missing = item.objectives.filter((name) => !objectiveOf.has(name.toLowerCase()))
  if (missing.length) notes.push(`Objectives that this school does not have are left out: ${missing.join(', ')}.`)
  const read = questionSchema.safeParse({
    ...question,
    objectives: objectives.slice(0, 10),
    stimulus: item.stimulus === null ? null : (stimuli.get(item.stimulus) ?? null),
  })
  if (!read.success)
    return { ...item, question: null, problem: read.error.issues[0]?.message ?? 'This question cannot be read.', notes }
  try {
    return { ...item, question: prepared(read.data), notes: [...notes, ...questionFaults(read.data)] }
  } catch (error) {
    if (error instanceof Problem) return { ...item, question: null, problem: error.sentence, notes }
    throw error
  }
}

/** What questions share, with the school's media; one that cannot be kept is left out, and its questions say so. */
function checkedStimuli(stimuli: ReadonlyMap<string, Stimulus>, media: KeptMedia): Map<string, Stimulus> {
  return new Map(
    [...stimuli].flatMap(([name, stimulus]) => {
      try {
        const own = eachText(stimulus, (text) =>
          text.replace(mediaAddress, (whole, digest: string) => media.addresses.get(digest) ?? whole),
        )
        return [[name.slice(0, 80), preparedStimulus(own)] as const]
      } catch (error) {
        if (error instanceof Problem) return []
        throw error
      }
    }),
  )
}

/** The school's own stimuli among those that a file names: brought earlier, or taken out of this very bank. */
export async function knownStimuli(db: Db, school: string, names: readonly string[]): Promise<Map<string, string>> {
  if (!names.length) return new Map()
  const rows = await db.rows<Pick<StimulusRow, 'id' | 'outside_id'>>(
    'SELECT id, outside_id FROM stimulus WHERE school_id = ? AND (outside_id IN (?) OR id IN (?))',
    [school, names, names],
  )
  return new Map(
    rows.flatMap(
      (row) =>
        (row.outside_id === null
          ? [[row.id, row.id]]
          : [
              [row.id, row.id],
              [row.outside_id, row.id],
            ]) as [string, string][],
    ),
  )
}

async function objectiveNames(db: Db, school: string): Promise<Map<string, string>> {
  const rows = await db.rows<Pick<ObjectiveRow, 'id' | 'code' | 'title'>>(
    'SELECT id, code, title FROM objective WHERE school_id = ?',
    [school],
  )
  return new Map(
    rows.flatMap(
      ({ id, code, title }) =>
        [
          [code.toLowerCase(), id],
          [title.toLowerCase(), id],
          [`${code} ${title}`.toLowerCase(), id],
        ] as const,
    ),
  )
}

/** What each item would do to the bank. */
async function fates(db: Db, person: Person, items: readonly BundleItem[]): Promise<StagedItem[]> {
  const outside = items.flatMap((item) => item.outsideId ?? [])
  // By the name that an earlier file gave it, or by its own: a file that came out of this bank finds its questions again.
  const known = outside.length
    ? await db.rows<{ outside_id: string; question_id: string }>(
        'SELECT id AS outside_id, id AS question_id FROM question WHERE school_id = ? AND id IN (?) UNION ALL SELECT outside_id, question_id FROM question_outside WHERE school_id = ? AND outside_id IN (?)',
        [person.school, outside, person.school, outside],
      )
    : []
  // What a person may not see is not told of, by its name as little as by its words.
  const seen = await seenAmong(
    db,
    person,
    known.map((row) => row.question_id),
  )
  const knownAs = new Map(
    known.filter((row) => seen.has(row.question_id)).map((row) => [row.outside_id, row.question_id]),
  )
  const [current, keys] = [
    await loadQuestions(db, person.school, [...knownAs.values()]),
    items.flatMap((item) => (item.question && nearKey(item.question) ? [nearKey(item.question)] : [])),
  ]
  const near = keys.length
    ? await db.rows<Pick<QuestionRow, 'near_key' | 'id'>>(
        "SELECT id, near_key FROM question WHERE school_id = ? AND near_key IN (?) AND sharing NOT IN ('staged', 'outside') ORDER BY id DESC",
        [person.school, keys],
      )
    : []
  const nearSeen = await seenAmong(
    db,
    person,
    near.map((row) => row.id),
  )
  const nearBy = new Map(near.filter((row) => nearSeen.has(row.id)).map((row) => [row.near_key, row.id]))
  // Through the schema, so that the order of what is said makes no difference.
  const body = (question: Question) =>
    toJson(questionSchema.safeParse({ ...question, objectives: [] }).data ?? question)
  return items.map((item): StagedItem => {
    const { question } = item
    const base = {
      place: item.place,
      outsideId: item.outsideId,
      problem: item.problem,
      notes: item.notes,
      folder: item.folder,
      stimulus: item.stimulus,
      proof: item.proof,
      lost: item.lost,
      question,
    }
    if (!question) return { ...base, fate: 'broken', kind: null, title: '', key: '', existing: null }
    const about = {
      kind: question.kind,
      title: readingOf(question).stem.slice(0, 200),
      key: kindOf(question.kind).keyText(question.body).slice(0, 200),
    }
    const existing = item.outsideId ? (knownAs.get(item.outsideId) ?? null) : null
    const there = existing ? current.get(existing) : undefined
    if (existing && there)
      return { ...base, ...about, existing, fate: body(there.question) === body(question) ? 'same' : 'changed' }
    const alike = nearBy.get(nearKey(question)) ?? null
    return { ...base, ...about, existing: alike, fate: alike ? 'near' : 'new' }
  })
}

/** Reads a file and shows what would come; nothing is in the bank yet. @throws Problem 422 for a file that cannot be read */
export async function stageFile(
  database: Database,
  person: Person,
  bytes: Uint8Array,
  name: string,
  now: Instant,
): Promise<Batch> {
  const staged = await stagedFrom(database, person, bytes, name, now)
  const row = { id: newId(), name: name.slice(0, 200), state: 'staged' as const, progress: 0, total: 0, result: null }
  await database.run(
    'INSERT INTO import_batch (id, school_id, person_id, name, made_at, state, touched_at, body) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [row.id, person.school, person.id, row.name, toSql(now), row.state, toSql(now), toJson(staged)],
  )
  return viewOf({ ...row, staged })
}

/** All that a file brings, cleaned and checked, with what each item would do. The file as it was read is let go of here: it is large. */
async function stagedFrom(
  database: Database,
  person: Person,
  bytes: Uint8Array,
  name: string,
  now: Instant,
): Promise<Staged> {
  const bundle = await readBundle(bytes, name)
  const [media, objectives] = [
    await addManyMedia(database, person, bundle.media, now),
    await objectiveNames(database, person.school),
  ]
  const stimuli = checkedStimuli(bundle.stimuli, media)
  const known = await knownStimuli(database, person.school, [...stimuli.keys()])
  const items = await fates(
    database,
    person,
    bundle.items.map((item) =>
      checked(
        item.stimulus !== null && !stimuli.has(item.stimulus)
          ? { ...item, stimulus: null, notes: [...item.notes, 'What it shares with others is not in the file.'] }
          : item,
        media,
        objectives,
        known,
      ),
    ),
  )
  const tests = eachText(bundle.tests, (text) =>
    text.replace(mediaAddress, (whole, digest: string) => media.addresses.get(digest) ?? whole),
  )
  return { items, stimuli: Object.fromEntries(stimuli), tests }
}

async function readBundle(bytes: Uint8Array, name: string) {
  try {
    return await readFile(bytes, name)
  } catch (error) {
    if (error instanceof UnreadableFile) throw new Problem(422, 'file', error.message)
    throw error
  }
}
