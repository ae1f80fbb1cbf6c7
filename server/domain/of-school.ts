import type { Db } from '../database/database'

/** Things that are of one school, by how a statement finds them there. */
const found = {
  class: 'SELECT id FROM class WHERE id IN (?) AND school_id = ?',
  group: 'SELECT g.id FROM class_group g JOIN class c ON c.id = g.class_id WHERE g.id IN (?) AND c.school_id = ?',
  student: "SELECT id FROM person WHERE id IN (?) AND school_id = ? AND role = 'student'",
  question: 'SELECT id FROM question WHERE id IN (?) AND school_id = ?',
}
export type OfSchool = keyof typeof found

/** Those of some ids that the school has. */
export async function ofSchool(db: Db, kind: OfSchool, ids: readonly string[], school: string): Promise<Set<string>> {
  if (!ids.length) return new Set()
  const rows = await db.rows<{ id: string }>(found[kind], [[...new Set(ids)], school])
  return new Set(rows.map((row) => row.id))
}
