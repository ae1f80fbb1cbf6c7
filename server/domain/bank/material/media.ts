import type { MediaRow } from '../../../database/tables'
import { createHash } from 'node:crypto'
import type { Instant } from '../../../../core/kit/time'
import { toSql } from '../../../database/codec'
import { inBatches } from '../../../database/batches'
import { meantFor } from '../../quizzes/meant-for'
import type { Db } from '../../../database/database'
import type { Person } from '../../../people/people'
import { notFound, Problem } from '../../problem'

export type MediaKind = 'picture' | 'sound' | 'film' | 'document'

const mega = 1024 * 1024
export const mediaLimits: Record<MediaKind, number> = {
  picture: 4 * mega,
  sound: 10 * mega,
  film: 40 * mega,
  document: 20 * mega,
}
export const mediaLimit = Math.max(...Object.values(mediaLimits))

const latin = (bytes: Buffer, from: number, to: number) => bytes.subarray(from, to).toString('latin1')
const begins =
  (...start: number[]) =>
  (bytes: Buffer) =>
    bytes.subarray(0, start.length).equals(Buffer.from(start))
/** ISO base media (ISO/IEC 14496-12): a box "ftyp" first, with its brand. */
const isoBrand = (bytes: Buffer) => (latin(bytes, 4, 8) === 'ftyp' ? latin(bytes, 8, 12) : '')
const isMatroska = begins(0x1a, 0x45, 0xdf, 0xa3)
/** A Matroska video track says so by its codec id (RFC 9559). */
const hasVideoTrack = (bytes: Buffer) => /V_(?:VP[89]|AV1|MPEG4)/.test(latin(bytes, 0, 64 * 1024))

/**
 * Signatures of the types that are taken: PNG (ISO/IEC 15948), JPEG (ISO/IEC 10918), GIF89a, WebP (RFC 9649); WAVE, Ogg
 * (RFC 3533), MP3 (ISO/IEC 11172-3, or an ID3 head), MP4 (ISO/IEC 14496-12) and WebM for sound and film;
 * PDF (ISO 32000).
 */
const signatures: { kind: MediaKind; type: string; matches: (bytes: Buffer) => boolean }[] = [
  { kind: 'picture', type: 'image/png', matches: begins(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a) },
  { kind: 'picture', type: 'image/jpeg', matches: begins(0xff, 0xd8, 0xff) },
  { kind: 'picture', type: 'image/gif', matches: (bytes) => ['GIF87a', 'GIF89a'].includes(latin(bytes, 0, 6)) },
  {
    kind: 'picture',
    type: 'image/webp',
    matches: (bytes) => latin(bytes, 0, 4) === 'RIFF' && latin(bytes, 8, 12) === 'WEBP',
  },
  {
    kind: 'sound',
    type: 'audio/wav',
    matches: (bytes) => latin(bytes, 0, 4) === 'RIFF' && latin(bytes, 8, 12) === 'WAVE',
  },
  { kind: 'sound', type: 'audio/ogg', matches: (bytes) => latin(bytes, 0, 4) === 'OggS' },
  {
    kind: 'sound',
    type: 'audio/mpeg',
    matches: (bytes) => latin(bytes, 0, 3) === 'ID3' || (bytes[0] === 0xff && (bytes[1]! & 0xe6) === 0xe2),
  },
  { kind: 'sound', type: 'audio/mp4', matches: (bytes) => isoBrand(bytes).startsWith('M4A') },
  { kind: 'film', type: 'video/mp4', matches: (bytes) => isoBrand(bytes) !== '' },
  { kind: 'film', type: 'video/webm', matches: (bytes) => isMatroska(bytes) && hasVideoTrack(bytes) },
  { kind: 'sound', type: 'audio/webm', matches: isMatroska },
  { kind: 'document', type: 'application/pdf', matches: (bytes) => latin(bytes, 0, 5) === '%PDF-' },
]

/** What bytes are, or undefined. */
export function sniff(bytes: Buffer): { kind: MediaKind; type: string } | undefined {
  return signatures.find(({ matches }) => matches(bytes))
}

/** Digest of a school's bytes: what is sent twice is kept once, and an address cannot be guessed. */
export const mediaId = (school: string, bytes: Buffer) =>
  createHash('sha256').update(school).update(bytes).digest('hex')

const refusals: Record<MediaKind, string> = {
  picture: 'A picture may have at most 4 MB. Make it smaller and try again.',
  sound: 'A sound may have at most 10 MB. Make it shorter and try again.',
  film: 'A film may have at most 40 MB. Make it shorter and try again.',
  document: 'A PDF may have at most 20 MB. Make it smaller and try again.',
}

/** What is wrong with bytes that are to be kept, or null. */
export function mediaFault(
  bytes: Buffer,
  wanted: readonly MediaKind[] = ['picture', 'sound', 'film', 'document'],
): Problem | null {
  if (!bytes.length) return new Problem(422, 'empty', 'The file is empty.')
  const found = sniff(bytes)
  if (!found || !wanted.includes(found.kind)) {
    const takes = {
      picture: 'PNG, JPEG, GIF or WebP picture',
      sound: 'WAVE, Ogg, MP3, M4A or WebM sound',
      film: 'MP4 or WebM film',
      document: 'PDF',
    }
    return new Problem(415, 'media', `This is not a ${wanted.map((kind) => takes[kind]).join(', nor a ')}.`)
  }
  return bytes.length > mediaLimits[found.kind] ? new Problem(413, 'too-large', refusals[found.kind]) : null
}

/**
 * Keeps a picture, a sound, a film or a PDF, once however often it comes; its type is read from its bytes, never believed.
 * @param own only the person who added it and teachers may have it: a student's recording
 * @returns its address
 */
export async function addMedia(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  bytes: Buffer,
  now: Instant,
  wanted?: readonly MediaKind[],
  own = false,
): Promise<{ src: string; kind: MediaKind }> {
  const fault = mediaFault(bytes, wanted)
  if (fault) throw fault
  const kept = mediaRow(person, bytes, own)
  await insertMedia(db, person, [kept], now)
  return kept
}

interface Medium {
  id: string
  src: string
  kind: MediaKind
  type: string
  bytes: Buffer
  own: boolean
}

function mediaRow(person: Pick<Person, 'id' | 'school'>, bytes: Buffer, own: boolean): Medium {
  const id = mediaId(own ? `${person.school}:${person.id}` : person.school, bytes)
  return { id, src: `/api/media/${id}`, ...sniff(bytes)!, bytes, own }
}

const bytesAtOnce = 8 * mega
async function insertMedia(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  rows: readonly Medium[],
  now: Instant,
): Promise<void> {
  await inBatches(
    rows,
    bytesAtOnce,
    (part) =>
      db.run('INSERT IGNORE INTO media (id, school_id, type, bytes, added_by, added_at, own) VALUES ?', [
        part.map((row) => [row.id, person.school, row.type, row.bytes, person.id, toSql(now), row.own]),
      ]),
    (row) => row.bytes.length,
  )
}

/** Keeps the media of a file. @returns by name its address, or the sentence why it was refused */
export async function addManyMedia(
  db: Db,
  person: Person,
  media: ReadonlyMap<string, Uint8Array>,
  now: Instant,
): Promise<{ addresses: Map<string, string>; refused: Map<string, string> }> {
  const each = [...media].map(([name, bytes]) => ({ name, bytes: Buffer.from(bytes) }))
  const found = each.map((one) => ({ ...one, fault: mediaFault(one.bytes) }))
  const rows = found
    .filter(({ fault }) => !fault)
    .map(({ name, bytes }) => ({ name, ...mediaRow(person, bytes, false) }))
  await insertMedia(db, person, rows, now)
  return {
    addresses: new Map(rows.map(({ name, src }) => [name, src])),
    refused: new Map(found.flatMap(({ name, fault }) => (fault ? [[name, fault.sentence] as const] : []))),
  }
}

/** The type and bytes of a file. Refuses what is not the person's to see: it is not here. */
export async function loadMedia(db: Db, person: Person, id: string): Promise<{ type: string; bytes: Buffer }> {
  const found = await db.one<Pick<MediaRow, 'type' | 'bytes' | 'own' | 'added_by'>>(
    'SELECT type, bytes, own, added_by FROM media WHERE id = ? AND school_id = ?',
    [id, person.school],
  )
  if (!found || !(await mayHave(db, person, id, found))) throw notFound('This file')
  return found
}

/** A recording is for who made it and for the teachers of a quiz in which they made one; a picture is for teachers and for students on whose papers it may be. */
async function mayHave(
  db: Db,
  person: Person,
  id: string,
  { own, added_by: maker }: Pick<MediaRow, 'own' | 'added_by'>,
): Promise<boolean> {
  if (own) return maker === person.id || (person.role === 'teacher' && (await marksOf(db, person.id, maker, id)))
  return person.role === 'teacher' || (await onPapersOf(db, person.id, id))
}

async function marksOf(db: Db, teacher: string, student: string, media: string): Promise<boolean> {
  return Boolean(
    await db.one(
      `SELECT 1 AS yes FROM attempt a JOIN quiz q ON q.id = a.quiz_id
      LEFT JOIN quiz_teacher t ON t.quiz_id = q.id AND t.person_id = ? AND t.may = 'write'
      WHERE a.student_id = ? AND (q.owner_id = ? OR t.person_id IS NOT NULL) AND (
        EXISTS (SELECT 1 FROM answer w WHERE w.attempt_id = a.id AND w.response LIKE ?)
        OR EXISTS (SELECT 1 FROM answer_aside s WHERE s.attempt_id = a.id AND s.response LIKE ?))
      LIMIT 1`,
      [teacher, student, teacher, `%${media}%`, `%${media}%`],
    ),
  )
}

/** Whether a file stands in an edition that a student has sat, or in the words before a quiz that is theirs to sit. */
async function onPapersOf(db: Db, student: string, media: string): Promise<boolean> {
  const within = `%${media}%`
  return Boolean(
    await db.one(
      `SELECT 1 AS yes FROM edition e WHERE e.id IN (SELECT DISTINCT a.edition_id FROM attempt a WHERE a.student_id = ?) AND e.body LIKE ?
      UNION ALL
      SELECT 1 FROM (${meantFor}) c JOIN quiz q ON q.id = c.quiz_id JOIN edition e ON e.id = q.edition_id
        WHERE q.state = 'published' AND JSON_VALUE(e.body, '$.content.intro') LIKE ?
      LIMIT 1`,
      [student, within, student, student, student, within],
    ),
  )
}
