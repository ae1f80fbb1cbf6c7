/** npm run screenshots: the pictures of docs/screenshots, taken from a fresh demo school. */
import { ready } from './lib/ready.mjs'
import { runWithDatabase } from './lib/with-database.mjs'

await ready({ programs: ['mariadbd', 'chromium'], built: true })
process.exit(await runWithDatabase('take-screenshots.ts'))
