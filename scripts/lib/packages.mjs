import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { runProgram } from './programs.mjs'
import { CannotGoOn, say } from './say.mjs'

export const root = join(import.meta.dirname, '..', '..')

/** What is brought in: all that serves, or also what checks and tests. */
const sets = { serving: ['--omit=dev'], developing: [] }

/**
 * Brings in node modules at the lock file's versions when they are missing or the lock file has changed. Not by
 * `npm ci`: it refuses where a registry lacks the binaries that packages ship for other platforms, though none is needed.
 * @param {'serving' | 'developing'} set
 */
export async function ensureModules(set) {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const mark = join(root, 'node_modules', '.thistle-lock')
  const present = existsSync(mark) ? readFileSync(mark, 'utf8') : ''
  // Who has once had what developers need keeps it.
  if (present.endsWith(' developing')) set = 'developing'
  if (present === `${lock} developing` || present === `${lock} ${set}`) return
  say('Bringing in node modules from the lock file …')
  const unfinished = join(root, 'node_modules', '.thistle-unfinished')
  // What was cut off half way may look whole to npm.
  if (existsSync(unfinished)) rmSync(join(root, 'node_modules'), { recursive: true, force: true })
  rmSync(mark, { force: true })
  mkdirSync(join(root, 'node_modules'), { recursive: true })
  writeFileSync(unfinished, '')
  const { code, said } = await runProgram(
    'npm',
    ['install', '--no-save', '--no-audit', '--no-fund', '--prefer-offline', '--loglevel=error', ...sets[set]],
    { cwd: root },
  )
  if (code !== 0)
    throw new CannotGoOn(`${said}\nnpm did not finish, so Thistle cannot run. Mend what it says above and start again.`)
  rmSync(unfinished, { force: true })
  writeFileSync(mark, `${lock} ${set}`)
}

const found = (program) =>
  ['/usr/sbin', '/usr/bin', '/usr/local/bin', ...(process.env.PATH ?? '').split(':')]
    .map((folder) => join(folder, program))
    .find((path) => existsSync(path))

/** Another installation may be under way: it is waited for. */
const apt = (...args) =>
  runProgram('apt-get', ['-o', 'DPkg::Lock::Timeout=120', '-qq', ...args], {
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  })

/** Brings in a package of Debian's, or says how to. */
async function ensurePackage(wanted, debianPackage) {
  if (process.getuid?.() !== 0 || !found('apt-get'))
    throw new CannotGoOn(
      `Thistle needs ${wanted}. Install it once with: sudo apt-get install --no-install-recommends ${debianPackage}`,
    )
  say(`Bringing in ${debianPackage} from Debian's packages …`)
  const install = ['install', '-y', '--no-install-recommends', debianPackage]
  await apt('update')
  let { code, said } = await apt(...install)
  if (code !== 0) {
    // An installation that was cut off has to be finished first.
    await runProgram('dpkg', ['--configure', '-a'])
    ;({ code, said } = await apt(...install))
  }
  if (code !== 0)
    throw new CannotGoOn(
      `${said}\nDebian's packages did not give ${debianPackage}. Install it by hand and start again.`,
    )
}

const notThere = (wanted, debianPackage) =>
  new CannotGoOn(`${debianPackage} is installed, but ${wanted} is not where it is expected.`)

/** The path of a program, brought in from Debian's packages when it is missing and that is possible. */
export async function ensureProgram(program, debianPackage) {
  if (!found(program)) await ensurePackage(program, debianPackage)
  const path = found(program)
  if (!path) throw notThere(program, debianPackage)
  return path
}

/** The same for a file that is no program. */
export async function ensureFile(path, debianPackage) {
  if (!existsSync(path)) await ensurePackage(path, debianPackage)
  if (!existsSync(path)) throw notThere(path, debianPackage)
}
