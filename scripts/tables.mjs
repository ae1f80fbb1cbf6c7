/** npm run tables: draws the tables and writes the types of their rows anew, after a migration. */
import { ensureModules } from './lib/packages.mjs'
import { runWithDatabase } from './lib/with-database.mjs'

ensureModules()
process.exit(await runWithDatabase('draw-tables.ts'))
