import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { root } from './packages.mjs'
import { stopWith } from './say.mjs'

/** Ends with one sentence when somebody else listens on the port. */
export function ensurePortFree(port, host) {
  return new Promise((done) => {
    const probe = createServer()
    probe.once('error', (error) =>
      stopWith(
        error.code === 'EADDRINUSE'
          ? `Port ${port} is in use; start Thistle on another one with THISTLE_PORT=${port + 1} npm start.`
          : `Thistle cannot listen on port ${port}: ${error.message}.`,
      ),
    )
    probe.listen(port, host, () => probe.close(() => done()))
  })
}

/** The secret that seals session cookies, kept with the data. */
export function sessionSecret(folder) {
  const file = join(folder, 'session-secret')
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 })
  return readFileSync(file, 'utf8').trim()
}

/** Migrates the database and, unless told otherwise, seeds the demo school where there is nothing yet. */
export function prepare(env, args = []) {
  return new Promise((done, failed) => {
    const child = spawn(process.execPath, ['--import', 'tsx', join(root, 'scripts', 'prepare.ts'), ...args], {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, ...env },
    })
    child.once('exit', (code) =>
      code === 0 ? done() : failed(new Error('The database could not be prepared; the lines above say why.')),
    )
  })
}

/** Starts the built server; resolves when it serves. */
export async function serve({ port, host, env, quiet = false }) {
  const child = spawn(process.execPath, [join(root, '.output', 'server', 'index.mjs')], {
    cwd: root,
    detached: true,
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      ...env,
      PORT: String(port),
      HOST: host,
      NITRO_SHUTDOWN_DISABLED: 'true',
    },
  })
  const address = `http://${host === '0.0.0.0' ? 'localhost' : host}:${port}`
  for (let tries = 0; tries < 600; tries++) {
    if (child.exitCode !== null) stopWith('The server ended before it served a page; the lines above say why.')
    try {
      const reply = await fetch(`${address}/api/health`)
      if (reply.ok)
        return {
          address,
          child,
          stop: () =>
            new Promise((done) => {
              child.once('exit', done)
              child.kill('SIGTERM')
            }),
        }
    } catch {
      /* not yet */
    }
    await new Promise((done) => setTimeout(done, 50))
  }
  stopWith('The server did not answer within half a minute.')
}
