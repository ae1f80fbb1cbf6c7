import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startMariadb } from './mariadb.mjs'
import { root } from './packages.mjs'

/**
 * Runs a script of this folder in a process of its own, with an empty database that is taken away afterwards.
 * @param {string} script its file name; it finds the database in THISTLE_DATABASE_URL
 * @returns {Promise<number>} its exit code; 1 where it was killed
 */
export async function runWithDatabase(script) {
  const folder = mkdtempSync(join(tmpdir(), 'thistle-script-'))
  const database = await startMariadb(folder, { quick: true })
  try {
    const { status } = spawnSync(process.execPath, ['--import', 'tsx', join(root, 'scripts', script)], {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, THISTLE_DATABASE_URL: database.url },
    })
    return status ?? 1
  } finally {
    await database.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
