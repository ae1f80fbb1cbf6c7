import { gunzipSync } from 'node:zlib'
import { appendHeader, getHeader, setHeader, type H3Event } from 'h3'
import type { Database } from '../database/database'
import type { Person } from '../people/people'
import { Crew, Gone } from '../work/crew'
import { forStudents, long, endWithAsker, type JobInput, type JobName, type JobResult } from '../work/jobs-by-name'
import { fromJson, toJson } from '../database/codec'
import { onStage } from '../database/stage'
import { AskerGone } from './body'

const seconds = 1000
/** Somebody waits before a page. */
const look = { time: Number(process.env.THISTLE_LOOK_SECONDS ?? 10) * seconds, memory: 256 }
const quick = new Crew(2, look)
const students = new Crew(2, look)
/** They look at whole quizzes after every edit: the next edit of the same person does not stand behind them. */
const checks = new Crew(1, look)
/** Files: minutes are honest. */
const files = new Crew(2, { time: 600 * seconds, memory: 512 })

/** The first text that somebody looks at does not wait for its thread to be started. */
export const warmUpThreads = (): void => {
  quick.warmUp()
}
export const closeThreads = (): void => {
  for (const crew of [quick, students, checks, files]) crew.close()
}

/** A reply that is JSON already: made in a thread, and passed on as it is, compressed where it is long. */
export class Sent<R> {
  /** Only for types. */
  declare readonly result: R
  constructor(private readonly answered: { json: string } | { gzipped: Uint8Array }) {}

  /** What it holds. */
  get value(): unknown {
    return fromJson('json' in this.answered ? this.answered.json : gunzipSync(this.answered.gzipped).toString())
  }

  /** Writes the headers that belong to it, and gives what is sent. */
  onto(event: H3Event): string | Buffer {
    setHeader(event, 'content-type', 'application/json')
    if ('json' in this.answered) return this.answered.json
    const bytes = Buffer.from(this.answered.gzipped.buffer)
    appendHeader(event, 'vary', 'accept-encoding')
    if (!/\bgzip\b/.test(getHeader(event, 'accept-encoding') ?? '')) return gunzipSync(bytes)
    setHeader(event, 'content-encoding', 'gzip')
    return bytes
  }
}

interface Asker {
  event: H3Event
  db: Database
  person: Person
}

/** Aborts when the connection closes before it was answered. */
function goneSignal(event: H3Event): AbortSignal {
  const gone = new AbortController()
  const { res } = event.node
  res.once('close', () => {
    if (!res.writableEnded) gone.abort()
  })
  return gone.signal
}

async function done<N extends JobName>(
  { event, db, person }: Asker,
  job: N,
  input: JobInput<N>,
  transfer: ArrayBuffer[],
) {
  const crew = long.has(job) ? files : forStudents.has(job) ? students : job === 'lookAtChecks' ? checks : quick
  // That the database is away is told at once: jobs of a person wait for each other, and each would find it out by itself.
  await db.one('SELECT 1 AS yes')
  try {
    return await crew.do({ job, input }, person.id, transfer, endWithAsker.has(job) ? goneSignal(event) : undefined)
  } catch (error) {
    if (error instanceof Gone) throw new AskerGone('Whoever asked has gone.')
    throw error
  }
}

/** Has a job done in a thread that nobody has asked for: what is due by itself. */
export async function inThreadByItself<N extends JobName>(job: N, input: JobInput<N>): Promise<void> {
  await files.do({ job, input }, `by itself: ${job}`)
}

/** Has a job done in a thread; what it gives is the reply. @param transfer what of the input is handed over, not copied */
export async function inThread<N extends JobName>(
  asker: Asker,
  job: N,
  input: JobInput<N>,
  transfer: ArrayBuffer[] = [],
): Promise<Sent<JobResult<N>>> {
  const stage = onStage()
  if (stage) return new Sent({ json: toJson(await stage.job(job, [asker.db, ...input])) })
  const answered = await done(asker, job, input, transfer)
  return new Sent(answered as { json: string } | { gzipped: Uint8Array })
}

/** Has a job done in a thread; what it gives is looked at here. */
export async function resultOfThread<N extends JobName>(
  asker: Asker,
  job: N,
  input: JobInput<N>,
): Promise<JobResult<N>> {
  const stage = onStage()
  if (stage) return (await stage.job(job, [asker.db, ...input])) as JobResult<N>
  const answered = await done(asker, job, input, [])
  if ('gzipped' in answered) return fromJson(gunzipSync(answered.gzipped).toString())
  return ('json' in answered ? fromJson(answered.json) : (answered as { value: unknown }).value) as JobResult<N>
}
