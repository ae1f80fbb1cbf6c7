import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './packages.mjs'
import { say, stopWith } from './say.mjs'

const sources = ['app', 'core', 'formats', 'server', 'public', 'nuxt.config.ts', 'package-lock.json']
const built = join(root, '.output', 'nitro.json')

function newest(path) {
  if (!existsSync(path)) return 0
  const stat = statSync(path)
  if (!stat.isDirectory()) return path.endsWith('.test.ts') ? 0 : stat.mtimeMs
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))))
}

/** Builds the application when its sources are newer than the build. */
export function ensureBuilt() {
  const since = existsSync(built) ? statSync(built).mtimeMs : 0
  if (since > Math.max(...sources.map((source) => newest(join(root, source))))) return
  say('Building the application (once; about a minute) …')
  const result = spawnSync(process.execPath, [join(root, 'node_modules', 'nuxt', 'bin', 'nuxt.mjs'), 'build'], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    encoding: 'utf8',
    maxBuffer: 1e8,
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
  })
  if (result.status !== 0) stopWith(`The build failed:\n${(result.stdout + result.stderr).slice(-4000)}`)
}
