import { createHash } from 'node:crypto'
import { z } from 'zod'
import { UnreadableFile } from '../../../formats/bundle'
import { rosterFields } from '../../../formats/roster/plain-csv'
import { readRoster, type ReadRoster } from '../../../formats/roster/read'
import { compareRoster, type PlannedPerson, type RosterPlan } from '../../../core/roster'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { standingOf } from './standing'

/** Files of a roster as a page sends them, with what was said of columns and doubts. */
export const rosterFiles = z.strictObject({
  files: z
    .array(z.strictObject({ name: z.string().max(200), base64: z.string().max(40_000_000) }))
    .min(1, 'Choose a file first.')
    .max(20, 'Choose at most 20 files.'),
  columns: z.array(z.enum(rosterFields).nullable()).max(500).nullable().default(null),
  /** By the key of a row: "new", "out", or the id of somebody of the school. */
  decisions: z.record(z.string().max(200), z.string().max(60)).default({}),
})
export type RosterFiles = z.infer<typeof rosterFiles>

export interface Planned {
  read: ReadRoster
  plan: RosterPlan
  /** The same for the same files on the same school: what was looked at is what is taken. */
  mark: string
}

/** What files would do to the school. @throws Problem 422 where they cannot be read */
export async function planRoster(db: Db, person: Person, { files, columns, decisions }: RosterFiles): Promise<Planned> {
  const read = readOrTell(files, columns)
  const emails = [...new Set(read.roster.people.flatMap(({ email }) => email ?? []))]
  const plan = compareRoster(read.roster, await standingOf(db, person.school, emails), decisions)
  return { read, plan, mark: createHash('sha256').update(JSON.stringify(plan)).digest('hex') }
}

function readOrTell(files: RosterFiles['files'], columns: RosterFiles['columns']): ReadRoster {
  try {
    return readRoster(
      files.map(({ name, base64 }) => ({ name, bytes: new Uint8Array(Buffer.from(base64, 'base64')) })),
      columns,
    )
  } catch (error) {
    if (error instanceof UnreadableFile) throw new Problem(422, 'unreadable', error.message)
    throw error
  }
}

const mostShown = 500

/** What is shown of a plan: numbers of all, and the first of each sort. */
export interface RosterLook {
  format: ReadRoster['format']
  columns: ReadRoster['columns']
  mark: string
  counts: {
    new: number
    changed: number
    same: number
    doubtful: number
    leftOut: number
    classesMade: number
    termsMade: number
    enrolments: number
    enrolled: number
    left: number
    faults: number
  }
  doubtful: {
    key: string
    place: string
    name: string
    email: string | null
    why: string
    could: { id: string; name: string; email: string | null }[]
  }[]
  made: { name: string; email: string | null; role: string }[]
  changed: { name: string; email: string | null; was: { name: string; email: string | null } }[]
  classes: string[]
  left: RosterPlan['left']
  faults: RosterPlan['faults']
  notes: string[]
}

export async function lookAtRoster(database: Database, person: Person, files: RosterFiles): Promise<RosterLook> {
  const { read, plan, mark } = await planRoster(database, person, files)
  const of = (is: PlannedPerson['fate']['is']) => plan.people.filter(({ fate }) => fate.is === is)
  const made = of('new')
  return {
    format: read.format,
    columns: read.columns,
    mark,
    counts: {
      new: made.length,
      changed: of('changed').length,
      same: of('same').length,
      doubtful: of('doubtful').length,
      leftOut: of('left out').length,
      classesMade: plan.classes.filter(({ id }) => id === null).length,
      termsMade: plan.terms.filter(({ id }) => id === null).length,
      enrolments: plan.enrolments.length,
      enrolled: plan.enrolled,
      left: plan.left.length,
      faults: plan.faults.length,
    },
    doubtful: of('doubtful')
      .slice(0, mostShown)
      .map(({ person: { key, place, name, email }, fate }) => ({
        key,
        place,
        name,
        email,
        ...(fate.is === 'doubtful' ? { why: fate.why, could: fate.could.slice(0, 20) } : { why: '', could: [] }),
      })),
    made: made.slice(0, mostShown).map(({ person: { name, email, role } }) => ({ name, email, role })),
    changed: of('changed')
      .slice(0, mostShown)
      .flatMap(({ person: { name, email }, fate }) => (fate.is === 'changed' ? [{ name, email, was: fate.was }] : [])),
    classes: plan.classes
      .filter(({ id }) => id === null)
      .map((each) => each.class.name)
      .slice(0, mostShown),
    left: plan.left.slice(0, mostShown),
    faults: plan.faults.slice(0, mostShown),
    notes: plan.notes,
  }
}
