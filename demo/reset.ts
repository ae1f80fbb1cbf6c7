import type { Database } from '../server/database/database'

/** What `school.demo` holds while the demo school is laid out: a start that is cut off then leaves no half of one for whole. */
export const halfLaidOut = 2

/** All tables but the one that says whose turn it is: it is held while this is done. */
async function tableNames(database: Database): Promise<string[]> {
  const tables = await database.rows<{ name: string }>(
    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name <> 'alone'",
  )
  return tables.map(({ name }) => name)
}

async function empty(database: Database): Promise<void> {
  const tables = await tableNames(database)
  await database.transaction(async (db) => {
    await db.run('SET FOREIGN_KEY_CHECKS = 0')
    for (const name of tables) await db.run(`DROP TABLE \`${name}\``)
    await db.run('SET FOREIGN_KEY_CHECKS = 1')
  })
}

const schools = (database: Database) => database.rows<{ name: string; demo: number }>('SELECT name, demo FROM school')
const otherwise = 'so it is left as it is. Name another one in THISTLE_DATABASE_URL.'

/** Why a database must not be emptied for the demo school; null where it is empty, or holds a demo and nothing else. */
export async function whyNotReset(database: Database): Promise<string | null> {
  const tables = await tableNames(database)
  if (!tables.length) return null
  if (!tables.includes('migration') || !tables.includes('school'))
    return `This database holds tables that are not Thistle’s, ${otherwise}`
  const there = await schools(database)
  const real = there.find(({ demo }) => !demo)
  if (real) return `This database holds ${real.name}, which is no demo school, ${otherwise}`
  return there.length ? null : `This database holds no demo school, ${otherwise}`
}

/** The sentence that says why a database is left as it is. */
export class NotReset extends Error {
  override name = 'NotReset'
}

/** Takes everything out of a database that holds a demo and nothing else. @throws NotReset */
export async function resetDemo(database: Database): Promise<void> {
  const why = await whyNotReset(database)
  if (why) throw new NotReset(why)
  await empty(database)
}

/** Takes out a demo school whose laying out was cut off, so that it can be laid out anew. */
export async function takeOutHalf(database: Database): Promise<boolean> {
  const there = await schools(database)
  if (there.length !== 1 || there[0]!.demo !== halfLaidOut) return false
  await empty(database)
  return true
}
