import type { AttemptRow, EnrolmentRow, SchoolRow } from '../../database/tables'
import { endAt, instantOfEnd, type End, type Instant } from '../../../core/kit/time'
import { latestEnds, type LatestEnds } from '../../../core/release'
import { fromSqlOrNever, toSql } from '../../database/codec'
import type { Db } from '../../database/database'
import { grouped } from '../grouped'
import { endsByDocument, type Asked } from './known-ends'

/** The stamp of a school's roster (roster-stamp.ts). */
export async function rosterOf(db: Db, school: string): Promise<number> {
  return (await db.one<Pick<SchoolRow, 'roster'>>('SELECT roster FROM school WHERE id = ?', [school]))?.roster ?? 0
}

type OpenRow = Pick<AttemptRow, 'quiz_id' | 'hard_stop'> & { class_id: EnrolmentRow['class_id'] | null }

/** The least end of each: worked out once. */
const thresholds = new WeakMap<LatestEnds, { from: string | null }>()

/** A sitting that stops no later than this changes nothing. Null where none can be later. */
function threshold(ends: LatestEnds): string | null {
  const known = thresholds.get(ends)
  if (known) return known.from
  const each: End[] = ends.byClass.size ? [...ends.byClass.values()] : [ends.everyone]
  const instants = each.flatMap((end) => instantOfEnd(end) ?? []).sort()
  const from = each.some((end) => end.is === 'beforeAll')
    ? '1000-01-01'
    : each.every((end) => end.is === 'never')
      ? null
      : toSql(instants[0]!)
  thresholds.set(ends, { from })
  return from
}

/**
 * Sittings under way that stop later than is named for their quiz. One bound for all goes to the database: a bound for
 * each costs it five times as much, and few are read in vain.
 */
async function openAfter(db: Db, after: ReadonlyMap<string, string>): Promise<OpenRow[]> {
  if (!after.size) return []
  const rows = await db.rows<OpenRow>(
    `SELECT a.quiz_id, a.hard_stop, e.class_id FROM attempt a LEFT JOIN enrolment e ON e.person_id = a.student_id
    WHERE a.state = 'open' AND a.hard_stop > ? AND a.quiz_id IN (?)`,
    [[...after.values()].sort()[0]!, [...after.keys()]],
  )
  return rows.filter((row) => row.hard_stop > after.get(row.quiz_id)!)
}

/**
 * The latest ends of quizzes: by their rules, and of sittings under way, which a rule that was shortened since does not
 * shorten. Of those only the ones are read that stop later than some class does by the rules.
 * @param roster the stamp of the school's roster
 * @param comeBy where only that is asked: whether ends have come by this instant. One that has not by the rules has not
 *   with sittings under way either, which are then not read
 */
export async function endsNow(
  db: Db,
  quizzes: readonly Asked[],
  roster: number,
  comeBy: Instant | null = null,
): Promise<Map<string, LatestEnds>> {
  const known = await endsByDocument(db, quizzes, roster)
  const byRules = quizzes.map(({ row }, i) => ({ id: row.id, ends: known[i]! }))
  const until = comeBy && toSql(comeBy)
  const asked = new Map<string, string>()
  for (const { id, ends } of byRules) {
    const later = threshold(ends)
    if (later !== null && (until === null || later <= until)) asked.set(id, later)
  }
  const openOf = grouped(await openAfter(db, asked), (row) => row.quiz_id)
  return new Map(
    byRules.map(({ id, ends }) => {
      const later = openOf.get(id)
      if (!later) return [id, ends]
      const each = later.map((row) => ({
        end: endAt(fromSqlOrNever(row.hard_stop)),
        classes: row.class_id === null ? [] : [row.class_id],
      }))
      return [id, latestEnds(each, ends)]
    }),
  )
}
