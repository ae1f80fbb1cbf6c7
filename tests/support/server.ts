import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
// @ts-expect-error -- the start scripts are plain JavaScript
import { freePort } from '../../scripts/lib/mariadb.mjs'

export interface RunningServer {
  address: string
  setClock(offset: number): void
  stop(): Promise<void>
}

/** The built application on a port of its own, whose clock the test sets (as an offset in milliseconds). */
export async function startServer(
  databaseUrl: string,
  port?: number,
  sweepSeconds = 3600,
  more: Record<string, string> = {},
): Promise<RunningServer> {
  const chosen = port ?? (await (freePort as () => Promise<number>)())
  const clock = join(mkdtempSync(join(tmpdir(), 'thistle-clock-')), 'clock')
  writeFileSync(clock, '0')
  const child: ChildProcess = spawn(
    process.execPath,
    [join(import.meta.dirname, '..', '..', '.output', 'server', 'index.mjs')],
    {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: {
        ...process.env,
        NODE_ENV: 'production',
        PORT: String(chosen),
        HOST: '127.0.0.1',
        THISTLE_DATABASE_URL: databaseUrl,
        THISTLE_DEMO: 'on',
        THISTLE_CLOCK_FILE: clock,
        THISTLE_SWEEP_SECONDS: String(sweepSeconds),
        ...more,
      },
    },
  )
  // Whatever ends this process, the server does not outlive it.
  process.once('exit', () => child.kill('SIGKILL'))
  const address = `http://127.0.0.1:${chosen}`
  for (let tries = 0; ; tries++) {
    if (child.exitCode !== null || tries > 400)
      throw new Error('The built server did not start. Is it built? npm test builds it.')
    const reply = await fetch(`${address}/api/health`).catch(() => null)
    if (reply?.ok) break
    await new Promise((done) => setTimeout(done, 50))
  }
  return {
    address,
    setClock: (offset) => writeFileSync(clock, String(offset)),
    stop: () =>
      new Promise((done) => {
        child.once('exit', () => done())
        child.kill('SIGTERM')
      }),
  }
}

export interface Reply {
  status: number
  body: Record<string, unknown> & { detail?: string }
  headers: Headers
}

/** Somebody who speaks to the server over HTTP with a session of their own. */
export class Caller {
  private cookie = ''
  constructor(private readonly address: string) {}

  /** What a request of one's own needs to be of the same session. */
  get headers(): Record<string, string> {
    return { origin: this.address, ...(this.cookie ? { cookie: this.cookie } : {}) }
  }

  async call(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Reply> {
    const raw = body instanceof Uint8Array || typeof body === 'string'
    const reply = await fetch(this.address + path, {
      method,
      headers: {
        ...this.headers,
        ...(body === undefined ? {} : { 'content-type': raw ? 'application/octet-stream' : 'application/json' }),
        ...headers,
      },
      body: body === undefined ? undefined : raw ? (body as BodyInit) : JSON.stringify(body),
    })
    const cookie = reply.headers
      .getSetCookie()
      .map((each) => each.split(';')[0])
      .join('; ')
    if (cookie) this.cookie = cookie
    // A line for news is not waited for: it stays open.
    if (reply.ok && reply.headers.get('content-type')?.startsWith('text/event-stream')) {
      await reply.body?.cancel()
      return { status: reply.status, body: {}, headers: reply.headers }
    }
    const text = await reply.text()
    let read: unknown = {}
    try {
      read = text ? JSON.parse(text) : {}
    } catch {
      read = { text }
    }
    return { status: reply.status, body: read as Reply['body'], headers: reply.headers }
  }

  async as(person: string): Promise<this> {
    const { status } = await this.call('POST', '/api/session/demo', { person })
    if (status !== 200) throw new Error(`Could not sign in as ${person}`)
    return this
  }
}
