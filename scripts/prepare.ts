/**
 * Brings the database to the newest migration and lays out the demo school where there is nothing yet.
 * --reset empties it first: for npm run demo:reset.
 */
import { iso } from '../core/kit/time'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { hasSchool } from '../server/people/people'
import { Problem } from '../server/domain/problem'

const url = process.env.THISTLE_DATABASE_URL
if (!url) throw new Error('THISTLE_DATABASE_URL is not set; npm start sets it.')
const database = openDatabase(url, 4, patient)
try {
  if (process.argv.includes('--reset')) {
    const tables = await database.rows<{ name: string }>(
      'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()',
    )
    await database.transaction(async (db) => {
      await db.run('SET FOREIGN_KEY_CHECKS = 0')
      for (const { name } of tables) await db.run(`DROP TABLE \`${name}\``)
      await db.run('SET FOREIGN_KEY_CHECKS = 1')
    })
  }
  const migrated = await migrate(database)
  // What is searched has grown with these.
  if (
    ['0003-bank.sql', '0005-stimuli.sql', '0007-describing.sql', '0008-kind-entries.sql'].some((name) =>
      migrated.includes(name),
    )
  )
    await (await import('../server/domain/bank/questions/rows')).reindexAll(database)
  // The demo school and all that it takes are loaded only for a database without any school: most starts are second ones.
  if (process.env.THISTLE_DEMO !== 'off' && !(await hasSchool(database))) {
    await (await import('../demo/seed')).seedDemo(database, iso(Date.now()))
    console.log('The demo school is laid out.')
  }
} catch (error) {
  console.error(error instanceof Problem ? `${error.sentence} ${JSON.stringify(error.more)}` : error)
  process.exitCode = 1
} finally {
  await database.close()
}
