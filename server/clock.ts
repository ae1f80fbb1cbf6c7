import { readFileSync } from 'node:fs'
import { count } from '../core/kit/phrases'
import { iso, second, type Instant } from '../core/kit/time'

/**
 * The server's clock, the one place where Thistle reads the time. It is the database's: this process only counts on from
 * what the database said (semantics §5), by a counter that nobody sets, so that all processes have the same time. Before
 * the database has been asked it is the time of this machine.
 */

/** Milliseconds of the counter of the machine, which never goes back and is the same in all threads. */
const counter = (): number => Number(process.hrtime.bigint()) / 1e6

/** Database's time less the counter; NaN until it is known. Shared with the threads of this process. */
let shared = new Float64Array(new SharedArrayBuffer(8)).fill(NaN)

/** What a thread is given, so that it has the time of its process. */
export const clockToShare = (): SharedArrayBuffer => shared.buffer as SharedArrayBuffer
export function shareClock(buffer: SharedArrayBuffer): void {
  shared = new Float64Array(buffer)
}

const databaseTime = (): number => (Number.isNaN(shared[0]!) ? Date.now() : counter() + shared[0]!)

/**
 * What time it is. Whoever starts the server (tests) may name a file in THISTLE_CLOCK_FILE that holds an offset in
 * milliseconds, "+5400000"; no client can set it.
 */
export function serverNow(): Instant {
  const file = process.env.THISTLE_CLOCK_FILE
  const offset = file ? Number(readFileSync(file, 'utf8')) || 0 : 0
  return iso(Math.floor(databaseTime()) + offset)
}

/** Asked so often at a time: the answer that came quickest says it best. */
const samples = 5
/** Milliseconds by which a new answer has to differ from the time that is counted, beyond its own doubt. */
const worthMoving = 20

/**
 * Asks the database for its time.
 * @param ask gives the database's time in milliseconds since 1970
 */
export async function setClock(ask: () => Promise<number>): Promise<void> {
  let best = { took: Infinity, offset: 0 }
  for (let i = 0; i < samples; i++) {
    const before = counter()
    const said = await ask()
    const after = counter()
    if (after - before < best.took) best = { took: after - before, offset: said - (before + after) / 2 }
  }
  const known = shared[0]!
  if (Number.isNaN(known) || Math.abs(best.offset - known) > best.took / 2 + worthMoving) shared[0] = best.offset
}

/** By how many milliseconds the clock of this machine is ahead of the database's. */
export const clockAhead = (): number => Date.now() - databaseTime()

/** From how far on the offset is told, and from how far on this process does not serve; milliseconds. */
const worthTelling = 1000
const mostOffset = 60_000

const seconds = (milliseconds: number) => count(Math.round(Math.abs(milliseconds) / second), 'second')

/** What is wrong with the clock of this machine, in a sentence, and whether this process may serve with it. */
export function clockFault(ahead: number = clockAhead()): { sentence: string | null; serves: boolean } {
  if (Math.abs(ahead) < worthTelling) return { sentence: null, serves: true }
  const where = `The clock of this server is ${seconds(ahead)} ${ahead > 0 ? 'ahead of' : 'behind'} the clock of its database.`
  return Math.abs(ahead) <= mostOffset
    ? { sentence: `${where} It uses the database’s time. Set the clock right.`, serves: true }
    : { sentence: `${where} It does not serve until the clock is right.`, serves: false }
}
