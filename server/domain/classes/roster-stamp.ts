import type { Db } from '../../database/database'
import { guardRoster } from '../quizzes/start-guard'

/**
 * Says that somebody has entered or left a class, or that what they need has changed. Whatever writes that calls it, in
 * the same transaction: what processes have worked out of everybody in the school is worked out again, and whoever
 * starts a quiz at the same moment is decided on anew.
 */
export async function rosterChanged(db: Db, school: string): Promise<void> {
  await guardRoster(db, school)
  await stampRoster(db, school)
}

/** The same for a change that takes long: whoever changes the roster too waits from here on. `guardRoster` has to follow before it is committed. */
export async function stampRoster(db: Db, school: string): Promise<void> {
  await db.run('UPDATE school SET roster = roster + 1 WHERE id = ?', [school])
}
