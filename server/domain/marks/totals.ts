import type { AttemptRow, MarkRow } from '../../database/tables'
import { decimalText, exact } from '../../../core/kit/exact'
import type { Instant } from '../../../core/kit/time'
import { bestOfEach, earnedOn, missedIn, totalsOf, type Earned } from '../../../core/marking'
import { mapInOrder } from '../../database/batches'
import { toJson, toSql } from '../../database/codec'
import type { Db } from '../../database/database'
import { loadAttempts, loadPaper, type Attempt } from '../sittings/attempts'

/** What each question of a marked attempt earned; of one that was left unsent nothing. */
async function earnedIn(db: Db, attempt: Pick<Attempt, 'id' | 'state'>): Promise<Earned[]> {
  const rows = await db.rows<Pick<MarkRow, 'item' | 'points' | 'possible'>>(
    'SELECT item, points, possible FROM mark WHERE attempt_id = ?',
    [attempt.id],
  )
  const earned = earnedOn(await loadPaper(db, attempt.id), rows)
  return attempt.state === 'unsent' ? earned.map((each) => ({ ...each, points: '0' })) : earned
}

/** The ended attempts of a student from one number to before another, by number. */
async function endedBetween(db: Db, { quiz, student }: Attempt, from: number, before: number): Promise<Attempt[]> {
  const all = await loadAttempts(db, { quizzes: [quiz], student })
  return all.filter(({ number, state }) => number >= from && number < before && state !== 'open')
}

/** Questions that a student has not got fully right in any attempt from one on. */
export async function missedSince(db: Db, last: Attempt, since: number): Promise<Set<string>> {
  const attempts = await endedBetween(db, last, since, last.number + 1)
  return missedIn(await mapInOrder(attempts, (each) => earnedIn(db, each)))
}

/** Keeps what an attempt earned in all, by its marks: of one that held only what was missed, with the best of those before. */
export async function keepTotals(db: Db, attempt: Attempt, at: Instant): Promise<void> {
  const paper = await loadPaper(db, attempt.id)
  const before =
    paper.missedSince === undefined ? [] : await endedBetween(db, attempt, paper.missedSince, attempt.number)
  // Its own state is that of the moment: what it earned is kept, whatever its grade makes of an unsent one.
  const earned = await mapInOrder([...before, { ...attempt, state: 'handed' as const }], (each) => earnedIn(db, each))
  const { score, possible, sections } = totalsOf(before.length ? bestOfEach(earned) : earned[0]!)
  await db.run(
    'UPDATE attempt SET score = ?, score_rounded = ?, possible = ?, section_scores = ?, marked_at = ? WHERE id = ?',
    [
      score,
      score && decimalText(exact(score), 3),
      possible,
      toJson(sections),
      score === null ? null : toSql(at),
      attempt.id,
    ],
  )
}

/** Adds up anew the later attempts that hold only what was missed in this one. */
export async function keepFollowers(db: Db, attempt: Attempt, at: Instant): Promise<void> {
  const later = await db.rows<Pick<AttemptRow, 'id'>>(
    "SELECT id FROM attempt WHERE quiz_id = ? AND student_id = ? AND number > ? AND state <> 'open' ORDER BY number",
    [attempt.quiz, attempt.student, attempt.number],
  )
  const attempts = await loadAttempts(db, { ids: later.map(({ id }) => id) })
  await mapInOrder(attempts, async (each) => {
    const { missedSince: since } = await loadPaper(db, each.id)
    if (since !== undefined && since <= attempt.number) await keepTotals(db, each, at)
  })
}
