import type { FolderRow, MediaRow, ObjectiveRow, QuestionRow } from '../../database/tables'
import { z } from 'zod'
import { mediaAddress, writable, writeFile, type OutgoingQuestion, type PortableTest } from '../../../formats'
import { id, type Question, type Stimulus } from '../../../core/question'
import type { Db } from '../../database/database'
import type { Person } from '../../people/people'
import { seenAmong } from '../bank/finding/visible'
import { loadQuestions } from '../bank/questions/questions'
import { loadStimuli } from '../bank/material/stimuli'
import { Problem } from '../problem'

/** The name of a format in which questions, or a quiz, can be written. */
export const formatOf = (what: 'questions' | 'quiz') =>
  z.enum(writable(what).map(({ name }) => name) as [string, ...string[]])

export const giveRequest = z.strictObject({
  questions: z.array(id).min(1).max(5000, 'Write at most 5,000 questions at once.'),
  as: formatOf('questions'),
})

/** Folder names from the top, by folder. */
async function folderPaths(db: Db, school: string): Promise<Map<string, string[]>> {
  const rows = await db.rows<Pick<FolderRow, 'id' | 'parent_id' | 'name'>>(
    'SELECT id, parent_id, name FROM folder WHERE school_id = ?',
    [school],
  )
  const byId = new Map(rows.map((row) => [row.id, row]))
  const path = (folder: string | null): string[] => {
    const row = folder ? byId.get(folder) : undefined
    return row ? [...path(row.parent_id), row.name] : []
  }
  return new Map(rows.map((row) => [row.id, path(row.id)]))
}

/**
 * Questions as they go out, with the names of what they lie in. Those that the person may not see are left out.
 * @param pinned those that stay at a version
 */
export async function outgoingFor(
  db: Db,
  person: Person,
  questions: readonly string[],
  pinned: ReadonlyMap<string, { question: Question }> = new Map(),
): Promise<OutgoingQuestion[]> {
  const mine = await seenAmong(db, person, questions)
  if (!mine.size) throw new Problem(422, 'nothing', 'None of these questions is there.')
  const seen = await db.rows<Pick<QuestionRow, 'id' | 'folder_id'>>(
    'SELECT id, folder_id FROM question WHERE id IN (?)',
    [[...mine]],
  )
  const [loaded, paths, objectives] = [
    await loadQuestions(
      db,
      person.school,
      seen.map((row) => row.id),
    ),
    await folderPaths(db, person.school),
    await db.rows<Pick<ObjectiveRow, 'id' | 'code'>>('SELECT id, code FROM objective WHERE school_id = ?', [
      person.school,
    ]),
  ]
  const codeOf = new Map(objectives.map((row) => [row.id, row.code]))
  return seen.flatMap(({ id: each, folder_id: folder }) => {
    const found = pinned.get(each) ?? loaded.get(each)
    return found
      ? [
          {
            id: each,
            folder: folder ? (paths.get(folder) ?? []) : [],
            objectives: found.question.objectives.flatMap((objective) => codeOf.get(objective) ?? []),
            question: found.question,
          },
        ]
      : []
  })
}

/**
 * Questions as a file. Those that the person may not see are left out.
 * @param test that holds them, for a package of QTI
 * @param pinned those that stay at a version in it
 */
export async function giveFile(
  db: Db,
  person: Person,
  { questions, as }: z.infer<typeof giveRequest>,
  test?: PortableTest,
  pinned: ReadonlyMap<string, { question: Question }> = new Map(),
): Promise<{ bytes: Buffer; type: string; name: string }> {
  const outgoing = await outgoingFor(db, person, questions, pinned)
  const file = await writeFile(as, outgoing, async () => ({
    ...(await besideOf(db, person, outgoing, test)),
    ...(test ? { test } : {}),
  }))
  if (!file) throw new Problem(422, 'format', 'Questions are not written in that format.')
  return {
    bytes: Buffer.from(file.bytes.buffer, file.bytes.byteOffset, file.bytes.byteLength),
    type: file.type,
    name: `${test ? 'quiz' : 'questions'}.${file.ending}`,
  }
}

/** What questions share, and all media that they and it name. */
async function besideOf(
  db: Db,
  person: Person,
  outgoing: readonly OutgoingQuestion[],
  test: PortableTest | undefined,
): Promise<{ media: Map<string, Uint8Array>; stimuli: Map<string, Stimulus> }> {
  const found = await loadStimuli(db, person.school, [
    ...new Set(outgoing.flatMap(({ question }) => question.stimulus ?? [])),
  ])
  const stimuli = new Map([...found].map(([name, { stimulus }]) => [name, stimulus]))
  return { stimuli, media: await mediaOf(db, person, [outgoing, [...stimuli], test ?? null]) }
}

async function mediaOf(db: Db, person: Person, outgoing: unknown): Promise<Map<string, Uint8Array>> {
  const ids = [...new Set([...JSON.stringify(outgoing).matchAll(mediaAddress)].map((found) => found[1]!))]
  const rows = ids.length
    ? await db.rows<Pick<MediaRow, 'id' | 'bytes'>>(
        'SELECT id, bytes FROM media WHERE id IN (?) AND school_id = ? AND own = 0',
        [ids, person.school],
      )
    : []
  return new Map(rows.map((row) => [row.id, new Uint8Array(row.bytes)]))
}
