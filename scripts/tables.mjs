/** npm run tables: draws the tables and writes the types of their rows anew, after a migration. */
import { ready } from './lib/ready.mjs'
import { runWithDatabase } from './lib/with-database.mjs'

await ready()
process.exit(await runWithDatabase('draw-tables.ts'))
