/**
 * npm start: brings in what is missing, starts a private MariaDB, migrates, seeds the demo school once, builds when
 * sources are newer than the build, and serves. Uses nothing but Node's own modules until node modules are there.
 *
 * THISTLE_PORT          port to serve on (3400)
 * THISTLE_HOST          address to serve on (127.0.0.1)
 * THISTLE_DATA          folder for data (.thistle)
 * THISTLE_DATABASE_URL  a MariaDB of one's own instead of the private one
 * THISTLE_DEMO          "off" leaves out the demo school and signing in by role
 */
import { mkdirSync } from 'node:fs'
import { spawn } from 'node:child_process'
import { join, resolve } from 'node:path'
import { ensureBuilt } from './lib/build.mjs'
import { startMariadb } from './lib/mariadb.mjs'
import { ensureModules, root } from './lib/packages.mjs'
import { say, stopWith } from './lib/say.mjs'
import { ensurePortFree, prepare, serve, sessionSecret } from './lib/serve.mjs'

const port = Number(process.env.THISTLE_PORT ?? 3400)
const host = process.env.THISTLE_HOST ?? '127.0.0.1'
const folder = resolve(process.env.THISTLE_DATA ?? join(root, '.thistle'))
const asDev = process.argv.includes('--dev')
const reset = process.argv.includes('--reset-demo')

if (!Number.isInteger(port) || port < 1 || port > 65535)
  stopWith(`THISTLE_PORT is “${process.env.THISTLE_PORT}”; give a number from 1 to 65535.`)
await ensurePortFree(port, host)
mkdirSync(folder, { recursive: true })
ensureModules()
if (!asDev && !reset) ensureBuilt()

const own = process.env.THISTLE_DATABASE_URL
const database = own ? { url: own, stop: async () => {} } : await startMariadb(folder)
const env = {
  THISTLE_DATABASE_URL: database.url,
  THISTLE_DEMO: process.env.THISTLE_DEMO ?? 'on',
  NUXT_SESSION_PASSWORD: sessionSecret(folder),
}

let running
let ending = false
async function end(code) {
  if (ending) return
  ending = true
  await running?.stop()
  await database.stop()
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => end(0))

try {
  await prepare(env, reset ? ['--reset'] : [])
} catch (error) {
  console.error(error.message)
  await end(1)
}
if (reset) {
  say('The demo school is laid out anew.')
  await end(0)
} else if (asDev) {
  const child = spawn(
    process.execPath,
    [join(root, 'node_modules', 'nuxt', 'bin', 'nuxt.mjs'), 'dev', '--port', String(port), '--host', host],
    { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } },
  )
  running = {
    stop: () =>
      new Promise((done) => {
        child.once('exit', done)
        child.kill('SIGTERM')
      }),
  }
  child.once('exit', () => end(0))
} else {
  running = await serve({ port, host, env })
  say(`\nThistle is open at ${running.address}   (Ctrl-C ends it; everything is kept in ${folder})\n`)
  running.child.once('exit', (code) => {
    if (!ending) {
      console.error('The server ended unexpectedly.')
      end(code ?? 1)
    }
  })
}
