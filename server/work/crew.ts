import { dirname, join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { clockToShare } from '../clock'
import { DatabaseAway } from '../database/away'
import { Problem } from '../domain/problem'
import type { Answered, Asked, Said } from './messages'

/** What a job may take. */
export interface Limits {
  /** Milliseconds from its beginning, in a thread that is up. */
  time: number
  /** Megabytes of what it keeps (V8's old generation). */
  memory: number
}

interface Job {
  asked: Asked
  /** Who it is for: one job of theirs at a time, so that nobody takes all threads. */
  person: string
  /** What of the input is handed over instead of copied. */
  transfer: ArrayBuffer[]
  signal: AbortSignal | undefined
  done(answered: Answered): void
  failed(error: Error): void
}

interface Thread {
  worker: Worker
  /** What it does; null while it waits. */
  doing: Job | null
  late: NodeJS.Timeout | undefined
  /** It has loaded what it needs, and takes jobs. */
  isUp: boolean
}

/** Whoever asked has gone: nobody waits for the answer. */
export class Gone extends Error {
  override name = 'Gone'
}

/** Milliseconds in which a thread comes up, on a machine however busy. */
const toComeUp = 30_000
/** A school that begins at once. */
const mostWaiting = 3000
/** Most jobs end by themselves before it is worth ending their thread. */
const grace = 300

const tooHeavy = (what: string) =>
  new Problem(422, 'too-heavy', `This takes too much ${what} to be read. Make it smaller, or part it, and try again.`)

/** The built thread, beside the built server; while developing, THISTLE_WORKER names the source. */
const file = () => process.env.THISTLE_WORKER ?? join(dirname(process.argv[1]!), 'worker.mjs')

/** Threads that do jobs, each one at a time, within limits. They are started when they are needed, and kept. */
export class Crew {
  private readonly threads = new Set<Thread>()
  private readonly line: Job[] = []

  constructor(
    private readonly most: number,
    private readonly limits: Limits,
  ) {}

  /**
   * Has a job done.
   * @param signal where it is given, the job ends when whoever asked has gone
   * @throws Problem of the job itself; 422 where it went over its limits; 503 where too many wait
   * @throws DatabaseAway, Gone
   */
  async do(asked: Asked, person: string, transfer: ArrayBuffer[] = [], signal?: AbortSignal): Promise<Answered> {
    if (this.line.length >= mostWaiting)
      throw new Problem(503, 'busy', 'Too much is being looked at just now. Try again in a moment.')
    const answered = await new Promise<Answered>((done, failed) => {
      this.line.push({ asked, person, transfer, done, failed, signal })
      this.next()
    })
    if ('problem' in answered) {
      const { status, code, sentence, more } = answered.problem
      throw new Problem(status, code, sentence, more)
    }
    if ('away' in answered) throw new DatabaseAway(answered.away)
    if ('fault' in answered) throw new Error(answered.fault)
    return answered
  }

  /** Starts a thread, so that the first job does not wait for that. */
  warmUp(): void {
    if (!this.threads.size) this.start()
  }

  close(): void {
    for (const { worker } of this.threads) void worker.terminate()
  }

  private next(): void {
    const busy = new Set([...this.threads].map((thread) => thread.doing?.person))
    const at = this.line.findIndex(({ person }) => !busy.has(person))
    if (at < 0) return
    const idle = [...this.threads].find((thread) => !thread.doing)
    if (!idle && this.threads.size >= this.most) return
    const [job] = this.line.splice(at, 1)
    if (job!.signal?.aborted) job!.failed(new Gone())
    else this.give(idle ?? this.start(), job!)
    this.next()
  }

  private give(thread: Thread, job: Job): void {
    thread.doing = job
    this.bound(thread)
    job.signal?.addEventListener('abort', () => {
      setTimeout(() => {
        if (thread.doing === job) this.end(thread, new Gone())
      }, grace)
    })
    thread.worker.postMessage(job.asked, job.transfer)
  }

  /** The time of a job does not run while its thread comes up: that is not the job's doing. */
  private bound(thread: Thread): void {
    clearTimeout(thread.late)
    thread.late = thread.isUp
      ? setTimeout(() => {
          this.end(thread, tooHeavy('time'))
        }, this.limits.time)
      : setTimeout(() => {
          this.end(thread, new Problem(503, 'busy', 'The machine is too busy just now. Try again in a moment.'))
        }, toComeUp)
  }

  /** Puts an end to a thread and to what it does. */
  private end(thread: Thread, error: Error): void {
    if (!this.threads.delete(thread)) return
    void thread.worker.terminate()
    clearTimeout(thread.late)
    thread.doing?.failed(error)
    thread.doing = null
    this.next()
  }

  private start(): Thread {
    const source = file()
    const worker = new Worker(source, {
      execArgv: source.endsWith('.ts') ? ['--import', 'tsx'] : [],
      env: { ...process.env, THISTLE_DATABASE_CONNECTIONS: '3' },
      workerData: { clock: clockToShare() },
      resourceLimits: { maxOldGenerationSizeMb: this.limits.memory },
    })
    const thread: Thread = { worker, doing: null, late: undefined, isUp: false }
    this.threads.add(thread)
    worker.on('message', ({ answered, free, up }: Said) => {
      if (up) {
        thread.isUp = true
        if (thread.doing) this.bound(thread)
        return
      }
      if (answered) thread.doing?.done(answered)
      if (!free) return
      clearTimeout(thread.late)
      thread.doing = null
      this.next()
    })
    worker.on('error', (error: NodeJS.ErrnoException) => {
      this.end(thread, error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? tooHeavy('memory') : error)
    })
    worker.on('exit', () => {
      this.end(thread, new Error('A thread ended by itself.'))
    })
    worker.unref()
    return thread
  }
}
