/**
 * Brings the database to the newest migration and lays out the demo school where there is nothing yet; one process at a
 * time. --reset empties a demo first: for npm run demo:reset.
 */
import { NotReset, resetDemo, takeOutHalf } from '../demo/reset'
import { iso } from '../core/kit/time'
import { alone } from '../server/database/alone'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { hasSchool } from '../server/people/people'
import { Problem } from '../server/domain/problem'

const url = process.env.THISTLE_DATABASE_URL
if (!url) throw new Error('THISTLE_DATABASE_URL is not set; npm start sets it.')
const database = openDatabase(url, 4, patient)

/** What is searched has grown with these. */
const searched = [
  '0003-bank.sql',
  '0005-stimuli.sql',
  '0007-describing.sql',
  '0008-kind-entries.sql',
  '0012-composing.sql',
]

async function bringUp() {
  const migrated = await migrate(database)
  if (searched.some((name) => migrated.includes(name)))
    await (await import('../server/domain/bank/questions/rows')).reindexAll(database)
}

async function layOutDemo() {
  if (process.env.THISTLE_DEMO === 'off') return
  if (await takeOutHalf(database)) await bringUp()
  if (await hasSchool(database)) return
  // The demo school and all that it takes are loaded only for a database without any school: most starts are second ones.
  await (await import('../demo/seed')).seedDemo(database, iso(Date.now()))
  console.log('The demo school is laid out.')
}

try {
  if (process.argv.includes('--reset')) await resetDemo(database)
  await bringUp()
  await alone(database, 'lay out the demo school', layOutDemo)
} catch (error) {
  if (error instanceof NotReset) console.error(error.message)
  else console.error(error instanceof Problem ? `${error.sentence} ${JSON.stringify(error.more)}` : error)
  process.exitCode = 1
} finally {
  await database.close()
}
