/** npm run screenshots: the pictures of docs/screenshots, taken from a fresh demo school. */
import { ensureBuilt } from './lib/build.mjs'
import { ensureModules, ensureProgram } from './lib/packages.mjs'
import { runWithDatabase } from './lib/with-database.mjs'

ensureModules()
ensureProgram('chromium', 'chromium')
ensureBuilt()
process.exit(await runWithDatabase('take-screenshots.ts'))
