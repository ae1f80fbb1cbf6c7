import { createHash } from 'node:crypto'
import type { Instant } from '../../../core/kit/time'
import { toSql } from '../../database/codec'
import type { Db } from '../../database/database'
import type { Person } from '../people/people'
import { notFound, Problem } from '../problem'

export const pictureLimit = 4 * 1024 * 1024

/** Signatures of the picture types that are taken: PNG (ISO/IEC 15948), JPEG (ISO/IEC 10918), GIF89a, WebP (RFC 9649). */
const signatures: { type: string, matches: (bytes: Buffer) => boolean }[] = [
  { type: 'image/png', matches: (bytes) => bytes.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])) },
  { type: 'image/jpeg', matches: (bytes) => bytes.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff])) },
  { type: 'image/gif', matches: (bytes) => ['GIF87a', 'GIF89a'].includes(bytes.subarray(0, 6).toString('latin1')) },
  { type: 'image/webp', matches: (bytes) => bytes.subarray(0, 4).toString('latin1') === 'RIFF' && bytes.subarray(8, 12).toString('latin1') === 'WEBP' },
]

/** Keeps a picture, once however often it comes; its type is read from its bytes, never believed. @returns its address */
export async function addPicture(db: Db, person: Pick<Person, 'id' | 'school'>, bytes: Buffer, now: Instant): Promise<string> {
  if (!bytes.length) throw new Problem(422, 'empty', 'The file is empty.')
  if (bytes.length > pictureLimit) throw new Problem(413, 'too-large', 'A picture may have at most 4 MB. Make it smaller and try again.')
  const type = signatures.find(({ matches }) => matches(bytes))?.type
  if (!type) throw new Problem(415, 'no-picture', 'This is not a PNG, JPEG, GIF or WebP picture.')
  const id = createHash('sha256').update(person.school).update(bytes).digest('hex')
  await db.run('INSERT IGNORE INTO media (id, school_id, type, bytes, added_by, added_at) VALUES (?, ?, ?, ?, ?, ?)', [id, person.school, type, bytes, person.id, toSql(now)])
  return `/api/media/${id}`
}

export async function loadPicture(db: Db, person: Person, id: string): Promise<{ type: string, bytes: Buffer }> {
  const found = await db.one<{ type: string, bytes: Buffer }>('SELECT type, bytes FROM media WHERE id = ? AND school_id = ?', [id, person.school])
  if (!found) throw notFound('This picture')
  return found
}
