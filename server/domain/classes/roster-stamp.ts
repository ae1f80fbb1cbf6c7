import type { Db } from '../../database/database'

/**
 * Says that somebody has entered or left a class, or that what they need has changed. Whatever writes that calls it, in
 * the same transaction: what processes have worked out of everybody in the school is worked out again.
 */
export async function rosterChanged(db: Db, school: string): Promise<void> {
  await db.run('UPDATE school SET roster = roster + 1 WHERE id = ?', [school])
}
