import { existsSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './packages.mjs'
import { runProgram } from './programs.mjs'
import { CannotGoOn, say } from './say.mjs'

const sources = ['app', 'core', 'formats', 'server', 'public', 'nuxt.config.ts', 'package-lock.json']
/** Written when all of a build is there. */
const whole = join(root, '.output', '.thistle-whole')

function newest(path) {
  if (!existsSync(path)) return 0
  const stat = statSync(path)
  if (!stat.isDirectory()) return path.endsWith('.test.ts') ? 0 : stat.mtimeMs
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))))
}

/** Builds the application when its sources are newer than the build, or the build was cut off. */
export async function ensureBuilt() {
  const since = existsSync(whole) ? statSync(whole).mtimeMs : 0
  if (since > Math.max(...sources.map((source) => newest(join(root, source))))) return
  say('Building the application (once; about a minute) …')
  rmSync(whole, { force: true })
  const began = new Date()
  const { code, said } = await runProgram(
    process.execPath,
    [join(root, 'node_modules', 'nuxt', 'bin', 'nuxt.mjs'), 'build'],
    { cwd: root, env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' } },
  )
  if (code !== 0) throw new CannotGoOn(`The build failed:\n${said.slice(-4000)}`)
  writeFileSync(whole, '')
  // What was changed while it was built is newer than the build.
  utimesSync(whole, began, began)
}
