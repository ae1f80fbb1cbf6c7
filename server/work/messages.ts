import type { JobName } from './jobs-by-name'

/** What is sent to a thread: one job at a time. */
export interface Asked {
  job: JobName
  input: unknown[]
}

/** The result as JSON, or as it is where it holds bytes; or how it failed. */
export type Answered =
  | { json: string }
  /** JSON that is long, compressed as it will be sent. */
  | { gzipped: Uint8Array }
  | { value: unknown }
  | { problem: { status: number; code: string; sentence: string; more: Record<string, unknown> } }
  | { away: string }
  | { fault: string }

/** What a thread says: that it has come up, then what it answers, and when it can take the next job. */
export interface Said {
  up?: true
  answered: Answered | null
  free: boolean
}
