import type { Instant } from '../../../core/kit/time'
import { sectionsOn, type Paper } from '../../../core/paper'
import { sectionLimits } from '../../../core/schedule'
import { mapInOrder } from '../../database/batches'
import { toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { Problem } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { recordLine } from '../record'
import { loadAttempt, loadPaper } from './attempts'
import { missingIn, requiredProblem } from './required'
import { enteredSections, scheduleOf, stopAnswers } from './section-clocks'
import { ownAttempt, underWay } from './own-attempt'

/** Makes sure that the device still has the lease of a sitting under way. Its first statement writes (architecture, Data). */
async function hold(db: Db, attempt: string, lease: number, now: Instant): Promise<void> {
  const held = await db.run(`UPDATE attempt SET touched = touched + 1 WHERE ${underWay} AND lease = ?`, [
    attempt,
    toSql(now),
    lease,
  ])
  if (held) return
  const { state, endedBy } = await loadAttempt(db, attempt)
  throw state === 'open' && endedBy === null
    ? new Problem(409, 'lease', 'This paper is being written on another device. Take it back here first.')
    : new Problem(409, 'ended', 'This paper has been handed in.', { attempt })
}

/** Closes for changes whatever section with a clock of its own is open, but the one that is named. @throws Problem 422 while something in it has to be answered and can be */
async function leaveOthers(db: Db, attempt: string, paper: Paper, but: string | null, now: Instant): Promise<void> {
  const open = (await enteredSections(db, attempt)).filter(({ section, leftAt }) => leftAt === null && section !== but)
  if (!open.length) return
  const left = new Set(open.map(({ section }) => section))
  const missing = await missingIn(db, attempt, now, (item) => left.has(item.section))
  if (missing.length) throw requiredProblem(missing, 'before you leave this section')
  await mapInOrder(open, async ({ section, stops }) => {
    const at = stops < now ? stops : now
    const closed = await db.run(
      'UPDATE attempt_section SET left_at = ?, stops_at = ? WHERE attempt_id = ? AND section_id = ? AND left_at IS NULL',
      [toSql(now), toSql(at), attempt, section],
    )
    if (closed) await stopAnswers(db, attempt, paper, section, at)
  })
}

/**
 * Enters a section (semantics §4.7): its clock begins, once, and its questions can be answered until it ends. Whatever
 * other section with a clock of its own was open is closed, also when the one entered has none.
 * @param place of the section on the sheet; null leaves what is open for the door of another
 */
export async function enterSection(
  database: Database,
  student: string,
  id: string,
  lease: number,
  place: number | null,
  now: Instant,
): Promise<void> {
  const attempt = await ownAttempt(database, student, id, now)
  const [paper, edition] = await Promise.all([loadPaper(database, id), loadEdition(database, attempt.edition)])
  const section = place === null ? null : sectionsOn(paper, edition)[place]
  if (section === undefined) throw new Problem(422, 'section', 'There is no such section on this paper.')
  await database.transaction(async (db) => {
    await hold(db, id, lease, now)
    await leaveOthers(db, id, paper, section && section.id, now)
    if (!section || section.limit === null) return
    // Read after the first write: a change of rules or of what the student needs comes before and is read, or after and rewrites this.
    const { deadline, stops } = sectionLimits(await scheduleOf(db, attempt), { limit: section.limit }, now)
    const entered = await db.run(
      'INSERT IGNORE INTO attempt_section (attempt_id, section_id, entered_at, deadline, stops_at) VALUES (?, ?, ?, ?, ?)',
      [id, section.id, toSql(now), toSql(deadline), toSql(stops)],
    )
    if (!entered) return
    await stopAnswers(db, id, paper, section.id, stops)
    await recordLine(db, now, student, 'section entered', id, { section: section.title })
  })
}
