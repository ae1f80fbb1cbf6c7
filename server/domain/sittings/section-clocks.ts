import type { AttemptRow, AttemptSectionRow } from '../../database/tables'
import { plus, type Instant } from '../../../core/kit/time'
import { sectionsOn, type Paper } from '../../../core/paper'
import type { Edition } from '../../../core/quiz'
import {
  clockedSections,
  neverShorterSection,
  scheduleFor,
  sectionLimits,
  sectionMinutes,
  type Schedule,
  type SectionLimits,
} from '../../../core/schedule'
import { inBatches, mapInOrder } from '../../database/batches'
import { byKey } from '../../database/by-key'
import { fromSql, toSql } from '../../database/codec'
import type { Db } from '../../database/database'
import { studentsByIds } from '../classes/students'
import { loadEdition } from '../quizzes/edition'
import { loadQuiz } from '../quizzes/quizzes'
import { type Attempt } from './attempts'
import { taken, type Break } from './break-facts'

/** Stands for "never yet" where a last instant is kept: nothing is taken before a section is entered. */
export const notEntered: Instant = '1000-01-01T00:00:00.000Z'

/** A section with a clock of its own, as it stands in a sitting. */
export interface EnteredSection extends SectionLimits {
  section: string
  enteredAt: Instant
  leftAt: Instant | null
}

/** Sections with a clock of their own that have been entered. */
export async function enteredSections(db: Db, attempt: string): Promise<EnteredSection[]> {
  const rows = await db.rows<AttemptSectionRow>('SELECT * FROM attempt_section WHERE attempt_id = ?', [attempt])
  return rows.map((row) => ({
    section: row.section_id,
    enteredAt: fromSql(row.entered_at),
    deadline: fromSql(row.deadline),
    stops: fromSql(row.stops_at),
    leftAt: row.left_at && fromSql(row.left_at),
  }))
}

/** The clock of a section on a sheet, by its place there. */
export interface SectionClock {
  place: number
  entered: Instant
  deadline: Instant
  stops: Instant
  left: boolean
}

export const sectionClocks = (paper: Paper, edition: Edition, entered: readonly EnteredSection[]): SectionClock[] => {
  const places = sectionsOn(paper, edition).map(({ id }) => id)
  return entered.map(({ section, enteredAt, deadline, stops, leftAt }) => ({
    place: places.indexOf(section),
    entered: enteredAt,
    deadline,
    stops,
    left: leftAt !== null,
  }))
}

/** Minutes that a student has for each section with a clock of its own, by its place on the sheet. */
export async function sectionDoors(
  db: Db,
  attempt: Attempt,
  paper: Paper,
  edition: Edition,
): Promise<{ place: number; minutes: number }[]> {
  if (!clockedSections(edition.content).length) return []
  const schedule = await scheduleOf(db, attempt)
  return sectionsOn(paper, edition).flatMap(({ limit }, place) =>
    limit === null ? [] : [{ place, minutes: sectionMinutes(schedule, limit) }],
  )
}

const itemsIn = (paper: Paper, section: string) =>
  paper.items.filter((item) => item.section === section).map((item) => item.id)

/** Items whose answers are taken only once their section has been entered. */
export function shutItems(paper: Paper, { content }: Pick<Edition, 'content'>): Set<string> {
  return new Set(clockedSections(content).flatMap(({ id }) => itemsIn(paper, id)))
}

/** Until when answers of a section are taken: where the guarded save looks. */
export async function stopAnswers(
  db: Db,
  attempt: string,
  paper: Paper,
  section: string,
  stops: Instant,
): Promise<void> {
  const items = itemsIn(paper, section)
  if (items.length)
    await db.run('UPDATE answer SET stops_at = ? WHERE attempt_id = ? AND item IN (?)', [toSql(stops), attempt, items])
}

export async function scheduleOf(db: Db, attempt: Attempt): Promise<Schedule> {
  const { quiz } = await loadQuiz(db, attempt.quiz)
  const student = (await studentsByIds(db, [attempt.student])).get(attempt.student)!
  return scheduleFor(quiz.rules, student)
}

/** The section under way is longer, or shorter, by a time: its clock stood still. @param milliseconds @param at when it was under way */
export async function shiftSections(db: Db, attempt: string, milliseconds: number, at: Instant): Promise<void> {
  const open = await db.rows<AttemptSectionRow>(
    'SELECT * FROM attempt_section WHERE attempt_id = ? AND left_at IS NULL AND stops_at > ?',
    [attempt, toSql(at)],
  )
  await mapInOrder(open, async (row) => {
    const stops = toSql(plus(fromSql(row.stops_at), milliseconds))
    await db.run('UPDATE answer SET stops_at = ? WHERE attempt_id = ? AND stops_at = ?', [stops, attempt, row.stops_at])
    await db.run('UPDATE attempt_section SET deadline = ?, stops_at = ? WHERE attempt_id = ? AND section_id = ?', [
      toSql(plus(fromSql(row.deadline), milliseconds)),
      stops,
      attempt,
      row.section_id,
    ])
  })
}

/** Sittings that are written at once: each statement compares every row with every key. */
const atOnce = 100

/**
 * Gives sections under way the time that an accommodation or the rules mean now; nothing is shortened. At most one is
 * under way in a sitting, and only its answers stop when it does.
 */
export async function rewriteSections(
  db: Db,
  schedules: ReadonlyMap<string, Schedule>,
  breaks: ReadonlyMap<string, readonly Break[]>,
  now: Instant,
): Promise<void> {
  const open = await db.rows<AttemptSectionRow & Pick<AttemptRow, 'edition_id'>>(
    'SELECT s.*, a.edition_id FROM attempt_section s JOIN attempt a ON a.id = s.attempt_id WHERE s.attempt_id IN (?) AND s.left_at IS NULL AND s.stops_at > ? FOR UPDATE',
    [[...schedules.keys()], toSql(now)],
  )
  const editions = new Map<string, ReturnType<typeof clockedSections>>()
  await mapInOrder([...new Set(open.map((row) => row.edition_id))], async (id) => {
    editions.set(id, clockedSections((await loadEdition(db, id)).content))
  })
  const changed = open.flatMap((row) => {
    const section = editions.get(row.edition_id)!.find(({ id }) => id === row.section_id)!
    const before = { deadline: fromSql(row.deadline), stops: fromSql(row.stops_at) }
    const entered = fromSql(row.entered_at)
    const within = (breaks.get(row.attempt_id) ?? []).filter(({ beganAt }) => beganAt >= entered)
    const plain = sectionLimits(schedules.get(row.attempt_id)!, section, entered)
    const limits = { deadline: plus(plain.deadline, taken(within)), stops: plus(plain.stops, taken(within)) }
    const next = neverShorterSection(before, limits)
    // Most changes of rules change no clock.
    return next.stops === before.stops && next.deadline === before.deadline ? [] : [{ row, next }]
  })
  await inBatches(changed, atOnce, async (part) => {
    const ids = part.map(({ row }) => row.attempt_id)
    const per = (pick: (each: (typeof part)[number]) => string) =>
      byKey(
        'attempt_id',
        part.map((each) => [each.row.attempt_id, pick(each)] as const),
      )
    const [deadline, stops, stopped] = [
      per(({ next }) => toSql(next.deadline)),
      per(({ next }) => toSql(next.stops)),
      per(({ row }) => row.stops_at),
    ]
    await db.run(`UPDATE answer SET stops_at = ${stops.sql} WHERE attempt_id IN (?) AND stops_at = ${stopped.sql}`, [
      ...stops.values,
      ids,
      ...stopped.values,
    ])
    await db.run(
      `UPDATE attempt_section SET deadline = ${deadline.sql}, stops_at = ${stops.sql} WHERE attempt_id IN (?) AND left_at IS NULL`,
      [...deadline.values, ...stops.values, ids],
    )
  })
}
