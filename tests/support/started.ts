import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, afterEach } from 'vitest'
// @ts-expect-error -- the start scripts are plain JavaScript
import { freePort } from '../../scripts/lib/mariadb.mjs'

const root = join(import.meta.dirname, '..', '..')
const pause = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds))

interface Process {
  pid: number
  parent: number
  command: string
}

/** All processes that run now (proc(5)); zombies have ended. */
function processes(): Process[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        const stat = readFileSync(`/proc/${name}/stat`, 'latin1')
        const [state, parent] = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
        const command = readFileSync(`/proc/${name}/cmdline`, 'latin1').replaceAll('\0', ' ')
        return state === 'Z' ? [] : [{ pid: Number(name), parent: Number(parent), command }]
      } catch {
        return []
      }
    })
}

/** `npm start` as people run it, with data of its own, and what has become of its processes. */
export class Started {
  readonly child: ChildProcess
  said = ''
  private readonly known = new Map<number, string>()

  private constructor(
    readonly address: string,
    folder: string,
    port: number,
    private readonly more: Record<string, string>,
  ) {
    this.child = spawn('npm', ['start'], {
      cwd: root,
      detached: true,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, THISTLE_PORT: String(port), THISTLE_DATA: folder, ...this.more },
    })
    for (const stream of [this.child.stdout!, this.child.stderr!])
      stream.on('data', (part: Buffer) => {
        this.said += part.toString()
      })
  }

  static async in(folder: string, more: Record<string, string> = {}): Promise<Started> {
    const port = await (freePort as () => Promise<number>)()
    return new Started(`http://127.0.0.1:${port}`, folder, port, more)
  }

  /** All that has come from it and still runs; also what has lost its parent since it was last looked at. */
  running(): Process[] {
    const now = processes()
    const ours = new Set([this.child.pid])
    for (let grown = true; grown;) {
      grown = false
      for (const each of now)
        if (ours.has(each.parent) && !ours.has(each.pid)) {
          ours.add(each.pid)
          grown = true
        }
    }
    for (const each of now) if (ours.has(each.pid)) this.known.set(each.pid, each.command)
    // A program that takes another's place (exec) keeps its id: the id is enough for so short a time.
    return now.filter((each) => this.known.has(each.pid))
  }

  named(part: string): Process {
    const found = this.running().find(({ command }) => command.includes(part))
    if (!found) throw new Error(`Nothing that has “${part}” in its name runs: ${this.said}`)
    return found
  }

  /** Waits for something; an error says what was waited for, and what was said. */
  async until(what: string, holds: () => boolean | Promise<boolean>, seconds = 60): Promise<void> {
    for (let waited = 0; !(await holds()); waited += 0.1) {
      if (waited > seconds) throw new Error(`Waited ${seconds} s for: ${what}. It said: ${this.said}`)
      this.running()
      await pause(100)
    }
  }

  serves = async (): Promise<boolean> => (await fetch(`${this.address}/api/health`).catch(() => null))?.status === 200
  ended = (): boolean => this.running().length === 0

  /** Kills all of it outright, parents first: none is left to start another. */
  killAll(): void {
    for (let left = this.running(); left.length; left = this.running())
      for (const { pid } of left) {
        try {
          process.kill(pid, 'SIGKILL')
        } catch {
          /* it has just ended */
        }
      }
  }
}

/** Starts with data folders of a test of its own; all that is left after each test is killed, and after all taken away. */
export function startsIn(name: string): (data: string) => Promise<Started> {
  const folder = mkdtempSync(join(tmpdir(), `thistle-${name}-`))
  const started: Started[] = []
  afterEach(() => {
    for (const each of started.splice(0)) each.killAll()
  })
  afterAll(() => rmSync(folder, { recursive: true, force: true }))
  return async (data) => {
    const made = await Started.in(join(folder, data))
    started.push(made)
    return made
  }
}
