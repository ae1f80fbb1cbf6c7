/** npm run tables: draws the tables and writes the types of their rows anew, after a migration. */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startMariadb } from './lib/mariadb.mjs'
import { ensureModules, root } from './lib/packages.mjs'

ensureModules()
const folder = mkdtempSync(join(tmpdir(), 'thistle-tables-'))
const database = await startMariadb(folder, { quick: true })
const { status } = spawnSync(process.execPath, ['--import', 'tsx', join(root, 'scripts', 'draw-tables.ts')], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, THISTLE_DATABASE_URL: database.url },
})
await database.stop()
rmSync(folder, { recursive: true, force: true })
process.exit(status ?? 1)
