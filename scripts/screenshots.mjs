/** npm run screenshots: the pictures of docs/screenshots, taken from a fresh demo school. */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureBuilt } from './lib/build.mjs'
import { startMariadb } from './lib/mariadb.mjs'
import { ensureModules, ensureProgram, root } from './lib/packages.mjs'

ensureModules()
ensureProgram('chromium', 'chromium')
ensureBuilt()
const folder = mkdtempSync(join(tmpdir(), 'thistle-pictures-'))
const database = await startMariadb(folder, { quick: true })
const { status } = spawnSync(process.execPath, ['--import', 'tsx', join(root, 'scripts', 'take-screenshots.ts')], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, THISTLE_DATABASE_URL: database.url },
})
await database.stop()
rmSync(folder, { recursive: true, force: true })
process.exit(status ?? 1)
