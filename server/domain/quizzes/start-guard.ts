import { createHash } from 'node:crypto'
import type { QuizRow, SchoolRow } from '../../database/tables'
import type { Db } from '../../database/database'
import type { LoadedQuiz } from './quizzes'

/** What a start is decided on: when one of these has changed, the decision is made again. */
export interface StartBasis {
  quiz: string
  school: string
  state: QuizRow['state']
  revision: number
  edition: string | null
  /** The stamp of the school's roster, read before the student was. */
  roster: number
}

/** Something that a start was decided on has changed before the start was written. */
export class DecisionOutdated extends Error {}

/** Rows per quiz and per school. More rows let more students start at once; a change writes them all. */
const slots = Array.from({ length: 16 }, (_, slot) => slot)
const slotOf = (id: string): number => createHash('sha256').update(id).digest()[0]! % slots.length

async function write(db: Db, rows: readonly (readonly [owner: string, slot: number])[]): Promise<void> {
  await db.run('INSERT INTO start_guard (owner_id, slot, turn) VALUES ? ON DUPLICATE KEY UPDATE turn = turn + 1', [
    rows.map(([owner, slot]) => [owner, slot, 1]),
  ])
}

export const startBasis = ({ id, school, stored, revision, edition }: LoadedQuiz, roster: number): StartBasis => ({
  quiz: id,
  school,
  state: stored,
  revision,
  edition,
  roster,
})

/**
 * Holds back changes of a quiz and of its school's roster until the transaction ends. Has to be its first statement:
 * what is read after it is as it was when the guard was taken, and stays so.
 * @param student picks the row, so that students seldom wait for each other
 */
export const holdChanges = (db: Db, { quiz, school }: Pick<StartBasis, 'quiz' | 'school'>, student: string) =>
  write(db, [
    [quiz, slotOf(student)],
    [school, slotOf(student)],
  ])

/** Lets a start go on only if all that it was decided on still stands; after holdChanges. @throws DecisionOutdated */
export async function ensureUnchanged(db: Db, basis: StartBasis): Promise<void> {
  const now = await db.one<Pick<QuizRow, 'state' | 'revision' | 'edition_id'> & Pick<SchoolRow, 'roster'>>(
    'SELECT q.state, q.revision, q.edition_id, s.roster FROM quiz q JOIN school s ON s.id = q.school_id WHERE q.id = ?',
    [basis.quiz],
  )
  const stands =
    now !== undefined &&
    now.state === basis.state &&
    now.revision === basis.revision &&
    now.edition_id === basis.edition &&
    now.roster === basis.roster
  if (!stands) throw new DecisionOutdated('What this start was decided on has changed.')
}

/**
 * Makes starts of a quiz wait for a change of its rules, edition or state, and be decided on it. Sittings that are read
 * afterwards with a lock are all that have started. Written late in its transaction, so that starts wait for little and,
 * on a cluster, the change seldom meets one.
 */
export const guardQuiz = (db: Db, quiz: string): Promise<void> => write(db, allOf(quiz))

/** Makes starts of the quizzes of a school wait for a change of its roster, and see it. */
export const guardRoster = (db: Db, school: string): Promise<void> => write(db, allOf(school))

const allOf = (owner: string) => slots.map((slot) => [owner, slot] as const)
