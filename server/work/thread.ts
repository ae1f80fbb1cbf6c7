/** A thread that does one job after another (jobs.ts): `worker.mjs` of the build. */
import { readlinkSync } from 'node:fs'
import { setPriority } from 'node:os'
import { parentPort, workerData } from 'node:worker_threads'
import { gzipSync } from 'node:zlib'
import { shareClock } from '../clock'
import { DatabaseAway } from '../database/away'
import { currentDatabase } from '../database/current'
import { Problem } from '../domain/problem'
import { speakOurWords } from '../../core/kit/schema-words'
import { jobs } from './jobs'
import type { Answered, Asked, Said } from './messages'

/** The thread that serves requests goes first; where that cannot be arranged, all are alike. */
try {
  setPriority(Number(readlinkSync('/proc/thread-self').split('/').at(-1)), 10)
} catch {
  /* no Linux */
}

shareClock((workerData as { clock: SharedArrayBuffer }).clock)
speakOurWords()

const say = (said: Said, transfer: ArrayBuffer[] = []) => parentPort!.postMessage(said, transfer)

function howItFailed(error: unknown): Answered {
  if (error instanceof Problem) {
    const { status, code, sentence, more } = error
    return { problem: { status, code, sentence, more } }
  }
  if (error instanceof DatabaseAway) return { away: error.message }
  return { fault: error instanceof Error ? (error.stack ?? error.message) : String(error) }
}

/** The roster of a large school goes over poor networks too. */
const worthCompressing = 16_000

/** Bytes are handed over, as a copy of their own; all else goes as JSON, which is what it becomes in the end. */
function give(value: unknown, free: boolean): void {
  const bytes = (value as { bytes?: unknown } | null | undefined)?.bytes
  if (!(bytes instanceof Uint8Array)) {
    const json = JSON.stringify(value) ?? 'null'
    if (json.length < worthCompressing) return say({ answered: { json }, free })
    const gzipped = new Uint8Array(gzipSync(json, { level: 5 }))
    return say({ answered: { gzipped }, free }, [gzipped.buffer])
  }
  const own = new Uint8Array(bytes)
  say({ answered: { value: { ...(value as object), bytes: own } }, free }, [own.buffer])
}

/** What a job goes on with after its reply. */
const restOf = (value: unknown): Promise<unknown> | undefined => {
  const done = (value as { done?: unknown } | null | undefined)?.done
  return done instanceof Promise ? done : undefined
}

async function work({ job, input }: Asked): Promise<void> {
  try {
    const run = jobs[job] as (...all: unknown[]) => unknown
    const value = await run(currentDatabase(), ...input)
    const rest = restOf(value)
    give(rest ? { ...(value as object), done: undefined } : value, !rest)
    if (!rest) return
    await rest.catch((error: unknown) => {
      console.error(job, error)
    })
    say({ answered: null, free: true })
  } catch (error) {
    say({ answered: howItFailed(error), free: true })
  }
}

parentPort!.on('message', (asked: Asked) => void work(asked))
say({ up: true, answered: null, free: false })
