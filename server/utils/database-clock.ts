import { clockFault, setClock } from '../clock'
import type { Db } from '../database/database'
import { Problem } from '../domain/problem'

const ask = (db: Db) => async (): Promise<number> =>
  Number((await db.one<{ at: string }>('SELECT UNIX_TIMESTAMP(SYSDATE(6)) AS at'))!.at) * 1000

let first: Promise<void> | undefined
let told: string | null = null

/** Asks the database for its time, and tells the log when the clock of this machine has become wrong or right. */
export async function followDatabaseClock(db: Db): Promise<void> {
  await setClock(ask(db))
  const { sentence } = clockFault()
  if ((sentence === null) !== (told === null)) console.error(sentence ?? 'The clock of this server is right again.')
  told = sentence
}

/**
 * Makes sure that this process has the database's time.
 * @throws DatabaseAway; Problem 503 where the clock of this machine is so wrong that something is broken
 */
export async function ensureClock(db: Db): Promise<void> {
  first ??= followDatabaseClock(db)
  try {
    await first
  } catch (error) {
    first = undefined
    throw error
  }
  const { sentence, serves } = clockFault()
  if (!serves) throw new Problem(503, 'clock', sentence!)
}
