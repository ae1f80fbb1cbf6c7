import { randomUUID } from 'node:crypto'
import type { Database } from './database'

/** Seconds that a holder who says nothing more keeps the place; it says something every third of that. */
const lease = 30
const pause = 500

/**
 * Does something that only one process at a time may do, however many nodes the database has (named locks of MariaDB
 * hold on one node only): a row is taken by compare-and-set, and kept by renewing it. Others wait.
 * @param name what is done, at most 60 characters
 */
export async function alone<T>(database: Database, name: string, work: () => Promise<T>): Promise<T> {
  await database.run(
    'CREATE TABLE IF NOT EXISTS alone (name VARCHAR(60) PRIMARY KEY, holder VARCHAR(40) NOT NULL, until DATETIME(3) NOT NULL) ENGINE=InnoDB',
  )
  const holder = randomUUID()
  const until = `UTC_TIMESTAMP(3) + INTERVAL ${lease} SECOND`
  const take = async () =>
    (await database.run(`INSERT IGNORE INTO alone (name, holder, until) VALUES (?, ?, ${until})`, [name, holder])) ||
    (await database.run(`UPDATE alone SET holder = ?, until = ${until} WHERE name = ? AND until < UTC_TIMESTAMP(3)`, [
      holder,
      name,
    ]))
  while (!(await take())) await new Promise((done) => setTimeout(done, pause))
  const renewal = setInterval(
    () => {
      database.run(`UPDATE alone SET until = ${until} WHERE name = ? AND holder = ?`, [name, holder]).catch(() => {})
    },
    (lease / 3) * 1000,
  )
  try {
    return await work()
  } finally {
    clearInterval(renewal)
    await database.run('DELETE FROM alone WHERE name = ? AND holder = ?', [name, holder])
  }
}
