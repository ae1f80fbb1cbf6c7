import { createServer } from 'node:net'
import { join } from 'node:path'
import { root } from './packages.mjs'
import { endProgram, startProgram } from './programs.mjs'
import { CannotGoOn } from './say.mjs'

/** Refuses with one sentence when somebody else listens on the port. */
export function ensurePortFree(port, host) {
  return new Promise((done, failed) => {
    const probe = createServer()
    probe.once('error', (error) =>
      failed(
        new CannotGoOn(
          error.code === 'EADDRINUSE'
            ? `Port ${port} is in use; start Thistle on another one with THISTLE_PORT=${port + 1} npm start.`
            : `Thistle cannot listen on port ${port}: ${error.message}.`,
        ),
      ),
    )
    probe.listen(port, host, () => probe.close(() => done()))
  })
}

/** Migrates the database and, unless told otherwise, seeds the demo school where there is nothing yet. */
export function prepare(env, args = []) {
  const child = startProgram(process.execPath, ['--import', 'tsx', join(root, 'scripts', 'prepare.ts'), ...args], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  })
  return new Promise((done, failed) =>
    child.once('exit', (code) =>
      code === 0 ? done() : failed(new CannotGoOn('The database could not be prepared; the lines above say why.')),
    ),
  )
}

/** Half a minute, in steps of 50 ms. */
const tries = 600

/** Starts the built server; resolves when it answers. It ends when this process does. */
export async function serve({ address, port, host, env }) {
  const child = startProgram(process.execPath, [join(root, '.output', 'server', 'index.mjs')], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      ...env,
      PORT: String(port),
      HOST: host,
      NITRO_SHUTDOWN_DISABLED: 'true',
    },
  })
  for (let tried = 0; tried < tries; tried++) {
    if (child.exitCode !== null || child.signalCode !== null)
      throw new CannotGoOn('The server ended before it served a page; the lines above say why.')
    // Whatever it answers: with its database away it serves, and says so.
    if (await fetch(`${address}/api/health`).catch(() => null)) return child
    await new Promise((done) => setTimeout(done, 50))
  }
  await endProgram(child)
  throw new CannotGoOn('The server did not answer within half a minute.')
}
