import { createHash } from 'node:crypto'
import { z } from 'zod'
import type { LinkEntryRow, QuizLinkRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { cleanName } from '../../../core/people'
import { entryKey, linkLeads, readEntry, type EntryField, type LinkRule } from '../../../core/rules'
import { mapInOrder } from '../../database/batches'
import { toJson, toSql, fromJson } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { countedTry, mostFromAddress } from '../../people/tries'
import { enrol } from '../classes/members'
import { newId } from '../ids'
import { Problem } from '../problem'
import { loadQuiz } from '../quizzes/quizzes'

export const comeInRequest = z.strictObject({
  entries: z.record(z.string().max(40), z.string().max(1000, 'An entry has at most 160 characters.')).default({}),
})
type Entries = z.infer<typeof comeInRequest>['entries']

/** What somebody reads who follows a link, before they come in. */
export interface LinkDoor {
  quiz: string
  title: string
  by: LinkRule['by']
  fields: EntryField[]
  /** They have come in already. */
  isIn: boolean
}

interface Found {
  quiz: string
  school: string
  title: string
  audience: string
  link: LinkRule
}

const nowhere = () => new Problem(404, 'link', 'This link leads nowhere, or not any more. Ask whoever gave it to you.')

/** Guests of one link within a quarter of an hour: more than any event has. */
const mostGuests = 3000

/** What the word of a link can look like. */
const wellFormed = /^[A-Za-z0-9_-]{16,40}$/

/** What a link leads to. Wrong words are counted by where they come from. @throws Problem 404, 429 */
async function follow(database: Database, token: string, address: string, now: Instant): Promise<Found> {
  let found: Found | null = null
  await countedTry(database, [{ by: `link:${address}`, most: mostFromAddress }], now, async () => {
    if (!wellFormed.test(token)) return false
    const row = await database.one<QuizLinkRow>('SELECT * FROM quiz_link WHERE token = ?', [token])
    if (!row) return false
    const { quiz, school, stored } = await loadQuiz(database, row.quiz_id)
    const { link } = quiz.rules
    if (link?.audience === row.class_id && linkLeads(quiz.rules) && stored === 'published')
      found = { quiz: row.quiz_id, school, title: quiz.content.title, audience: row.class_id, link }
    return true
  })
  if (!found) throw nowhere()
  return found
}

const isIn = async (db: Db, audience: string, person: string): Promise<boolean> =>
  Boolean(await db.one('SELECT 1 AS yes FROM enrolment WHERE class_id = ? AND person_id = ?', [audience, person]))

/** What somebody reads who follows a link. @param person who is signed in, if anybody */
export async function lookAtLink(
  database: Database,
  person: Person | null,
  token: string,
  address: string,
  now: Instant,
): Promise<LinkDoor> {
  const { quiz, title, audience, link } = await follow(database, token, address, now)
  const known = person?.role === 'student' ? await isIn(database, audience, person.id) : false
  return { quiz, title, by: link.by, fields: link.fields, isIn: known }
}

/** Entries as they are kept. @throws Problem 422 with all that is wrong, by field */
function readEntries(fields: readonly EntryField[], typed: Entries): Record<string, string> {
  const read = fields.map((field) => ({ id: field.id, ...readEntry(field, typed[field.id] ?? '') }))
  const faults = read.flatMap((each) => ('fault' in each ? [{ field: each.id, sentence: each.fault }] : []))
  if (faults.length) throw new Problem(422, 'entries', faults.map(({ sentence }) => sentence).join(' '), { faults })
  return Object.fromEntries(read.flatMap((each) => ('value' in each && each.value ? [[each.id, each.value]] : [])))
}

const digestOf = (value: string) => createHash('sha256').update(entryKey(value)).digest('hex')

/** What a guest is called: by the first name that they wrote, else by what else they wrote. */
const nameOf = (fields: readonly EntryField[], entries: Record<string, string>, id: string): string => {
  const name = fields.find(({ id: field, sort }) => sort === 'name' && entries[field])
  const first = name ?? fields.find(({ id: field }) => entries[field])
  return cleanName(first ? entries[first.id]! : `Guest ${id.slice(-4)}`).slice(0, 160)
}

/**
 * Somebody comes in by a link: a student of the school who is signed in, or a guest, who is made. Coming twice is once.
 * @returns who they are, and which quiz it is; `made` where a guest is to be signed in
 * @throws Problem 404 for no such link; 403 where they have to sign in; 409 where an entry is taken; 422 for entries that are none
 */
export async function comeIn(
  database: Database,
  person: Person | null,
  token: string,
  { entries: typed }: z.infer<typeof comeInRequest>,
  address: string,
  now: Instant,
): Promise<{ person: string; quiz: string; made: boolean }> {
  const { quiz, school, audience, link } = await follow(database, token, address, now)
  // A guest is no student of the school, whatever link they came by.
  const known = person?.role === 'student' && person.school === school ? person : null
  const student = known?.guest && link.by === 'signedIn' ? null : known
  if (student && (await isIn(database, audience, student.id))) return { person: student.id, quiz, made: false }
  if (!student && link.by === 'signedIn')
    throw new Problem(
      403,
      'sign-in',
      'This quiz is for students of the school: sign in first, then follow the link again.',
    )
  const entries = link.by === 'fields' ? readEntries(link.fields, typed) : {}
  // Counted by link, since a whole school may come from one address.
  if (!student) await countedTry(database, [{ by: `guest:${audience}`, most: mostGuests }], now, () => false)
  const id = student?.id ?? newId()
  await database.transaction(async (db) => {
    if (!student)
      await db.run(
        "INSERT INTO person (id, school_id, role, name, email, password_hash, guest) VALUES (?, ?, 'student', ?, NULL, '', 1)",
        [id, school, nameOf(link.fields, entries, id)],
      )
    await holdUnique(db, audience, link.fields, entries, id)
    await enrol(db, { id, school }, audience, [id], now, (student) => student)
    await db.run('REPLACE INTO link_entry (class_id, person_id, entries, at) VALUES (?, ?, ?, ?)', [
      audience,
      id,
      toJson(entries),
      toSql(now),
    ])
  })
  return { person: id, quiz, made: !student }
}

/** What nobody may write twice is held by a unique key: of two at once one comes in. */
async function holdUnique(
  db: Db,
  audience: string,
  fields: readonly EntryField[],
  entries: Record<string, string>,
  person: string,
): Promise<void> {
  const unique = fields.filter((field) => field.unique && entries[field.id])
  await mapInOrder(unique, async (field) => {
    const value = entries[field.id]!
    const held = await db.run(
      'INSERT IGNORE INTO link_unique (class_id, field_id, digest, person_id) VALUES (?, ?, ?, ?)',
      [audience, field.id, digestOf(value), person],
    )
    if (!held)
      throw new Problem(
        409,
        'entry-taken',
        `Somebody has come in with this “${field.name}” already. If it was you, go on in the browser in which you began; else ask your teacher.`,
        { faults: [{ field: field.id, sentence: `This “${field.name}” is taken.` }] },
      )
  })
}

/** What people wrote who came by the link of a quiz, by person. */
export async function loadEntries(db: Db, audience: string): Promise<Map<string, Record<string, string>>> {
  const rows = await db.rows<LinkEntryRow>('SELECT * FROM link_entry WHERE class_id = ?', [audience])
  return new Map(rows.map((row) => [row.person_id, fromJson<Record<string, string>>(row.entries)]))
}
