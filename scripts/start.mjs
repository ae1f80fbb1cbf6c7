/**
 * npm start: brings in what is missing, starts a private MariaDB, migrates, seeds the demo school once, builds when
 * sources are newer than the build, and serves; what ends by itself is started again. Uses nothing but Node's own
 * modules until node modules are there.
 *
 * THISTLE_PORT          port to serve on (3400)
 * THISTLE_HOST          address to serve on (127.0.0.1)
 * THISTLE_DATA          folder for data (.thistle)
 * THISTLE_DATABASE_URL  a MariaDB of one's own instead of the private one
 * THISTLE_DEMO          "off" leaves out the demo school and signing in by role
 * THISTLE_ADDRESS       where Thistle is reached, for links; has to be set with THISTLE_SMTP
 */
import { mkdirSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { ensureBuilt } from './lib/build.mjs'
import { keepRunning } from './lib/keep-running.mjs'
import { layOutMariadb } from './lib/mariadb.mjs'
import { watchNpm } from './lib/npm-parent.mjs'
import { ensureModules, root } from './lib/packages.mjs'
import { endAllPrograms, isEnding, startProgram } from './lib/programs.mjs'
import { CannotGoOn, say } from './lib/say.mjs'
import { ensurePortFree, prepare, serve } from './lib/serve.mjs'

const port = Number(process.env.THISTLE_PORT ?? 3400)
const host = process.env.THISTLE_HOST ?? '127.0.0.1'
const folder = resolve(process.env.THISTLE_DATA ?? join(root, '.thistle'))
const asDev = process.argv.includes('--dev')
const reset = process.argv.includes('--reset-demo')

/** Ends everything, whatever is under way; a second signal does not wait. */
async function end(code) {
  if (isEnding()) process.exit(code)
  await endAllPrograms()
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => end(0))
watchNpm(() => end(1))

/** Where the database is; a private one runs, and goes on running, from then on. */
async function startDatabase() {
  const own = process.env.THISTLE_DATABASE_URL
  if (own) return own
  const { url, launch } = await layOutMariadb(folder)
  await keepRunning('The database', launch)
  return url
}

/** Serves the sources as they are written, until that ends. */
function develop(env) {
  const child = startProgram(
    process.execPath,
    [join(root, 'node_modules', 'nuxt', 'bin', 'nuxt.mjs'), 'dev', '--port', String(port), '--host', host],
    {
      cwd: root,
      stdio: 'inherit',
      env: {
        ...process.env,
        ...env,
        HOST: host,
        PORT: String(port),
        THISTLE_WORKER: join(root, 'server', 'work', 'thread.ts'),
      },
    },
  )
  child.once('exit', () => end(0))
}

async function start() {
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new CannotGoOn(`THISTLE_PORT is “${process.env.THISTLE_PORT}”; give a number from 1 to 65535.`)
  await ensurePortFree(port, host)
  mkdirSync(folder, { recursive: true })
  const environment = (url) => ({ THISTLE_DATABASE_URL: url, THISTLE_DEMO: process.env.THISTLE_DEMO ?? 'on' })
  const modules = ensureModules(asDev ? 'developing' : 'serving')
  // Two cores: the database is laid out and filled while modules arrive and pages are built.
  const database = startDatabase()
  const [env] = await Promise.all([
    Promise.all([database, modules]).then(async ([url]) => {
      await prepare(environment(url), reset ? ['--reset'] : [])
      return environment(url)
    }),
    modules.then(() => (asDev || reset ? undefined : ensureBuilt())),
  ])
  if (reset) {
    say('The demo school is laid out anew.')
    await end(0)
  }
  if (asDev) return develop(env)
  const address = `http://${host === '0.0.0.0' ? 'localhost' : host}:${port}`
  await keepRunning('The server', () => serve({ address, port, host, env }))
  say(`\nThistle is open at ${address}   (Ctrl-C ends it; everything is kept in ${folder})\n`)
}

try {
  await start()
} catch (error) {
  if (!isEnding()) {
    console.error(error instanceof CannotGoOn ? `\n${error.message}\n` : error)
    await end(1)
  }
}
