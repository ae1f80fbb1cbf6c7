import { ensureBuilt } from './build.mjs'
import { ensureModules, ensureProgram } from './packages.mjs'
import { stopWith } from './say.mjs'

const packageOf = { mariadbd: 'mariadb-server', chromium: 'chromium' }

/**
 * Brings in what a script for developers needs, or ends it with the sentence that says what is missing.
 * @param {{ programs?: ('mariadbd' | 'chromium')[], built?: boolean }} needs
 */
export async function ready({ programs = ['mariadbd'], built = false } = {}) {
  try {
    await ensureModules('developing')
    for (const program of programs) await ensureProgram(program, packageOf[program])
    if (built) await ensureBuilt()
  } catch (error) {
    stopWith(error.message)
  }
}
