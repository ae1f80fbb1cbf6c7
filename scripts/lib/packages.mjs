import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { say, stopWith } from './say.mjs'

export const root = join(import.meta.dirname, '..', '..')

/**
 * Brings in node modules at the lock file's versions when they are missing or the lock file has changed. Not by
 * `npm ci`: it refuses where a registry lacks the binaries that packages ship for other platforms, though none is needed.
 */
export function ensureModules() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const mark = join(root, 'node_modules', '.thistle-lock')
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return
  say('Bringing in node modules from the lock file …')
  const result = spawnSync('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: 'inherit',
  })
  if (result.status !== 0)
    stopWith('npm did not finish, so Thistle cannot run. Its own words are above; mend that and start again.')
  writeFileSync(mark, lock)
}

const found = (program) =>
  ['/usr/sbin', '/usr/bin', '/usr/local/bin', ...(process.env.PATH ?? '').split(':')]
    .map((folder) => join(folder, program))
    .find((path) => existsSync(path))

/** The path of a program, brought in from Debian's packages when it is missing and that is possible. */
export function ensureProgram(program, debianPackage) {
  const present = found(program)
  if (present) return present
  if (process.getuid?.() !== 0 || !found('apt-get')) {
    stopWith(
      `Thistle needs ${program}. Install it once with: sudo apt-get install --no-install-recommends ${debianPackage}`,
    )
  }
  say(`Bringing in ${debianPackage} from Debian's packages …`)
  const options = { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
  try {
    execFileSync('apt-get', ['update', '-qq'], options)
    execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', debianPackage], options)
  } catch {
    stopWith(`Debian's packages did not give ${debianPackage}. Install it by hand and start again.`)
  }
  return found(program) ?? stopWith(`${debianPackage} is installed, but ${program} is not where it is expected.`)
}
