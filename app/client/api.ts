import { FetchError } from 'ofetch'
import { stage } from '~/documents/stage'
import { pageOwner, untilSignedIn, type SessionEnd } from './session-end'

/** What the server says is wrong (problem details), as an error whose message is a sentence for people. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    sentence: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(sentence)
  }

  /** The server could not be reached. */
  get isOffline() {
    return this.status === 0
  }

  /** Trying again later may do: the server cannot be reached, or cannot answer at the moment. */
  get isPassing() {
    return [0, 429, 502, 503, 504].includes(this.status)
  }
}

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE'

export interface Asking {
  method?: Method
  body?: unknown
  query?: Record<string, unknown>
  signal?: AbortSignal
  /** Milliseconds to wait for an answer; usually twenty seconds. */
  timeout?: number
}

/** Pauses, in milliseconds, before the same is asked again of a server that cannot answer at the moment. */
const pauses = [1000, 2000, 4000]

/**
 * Asks the server. Where it says that it cannot answer at the moment, what only reads is asked again by itself; what
 * writes is for its document, or for who pressed the button, to send again. If the session
 * has ended, it waits until the same person has signed in again, so that nothing typed is lost.
 * @throws ApiProblem
 */
export async function api<T>(path: string, options: Asking = {}, again = pauses): Promise<T> {
  try {
    return await ask<T>(path, options)
  } catch (error) {
    const end = sessionEndOf(error, path)
    if (end) {
      if (!(await untilSignedIn(end))) throw error
      return api<T>(path, options, again)
    }
    const [pause, ...later] = again
    const reads = (options.method ?? 'GET') === 'GET'
    if (pause === undefined || !reads || !(error instanceof ApiProblem) || error.status !== 503) throw error
    await new Promise((done) => setTimeout(done, pause))
    if (options.signal?.aborted) throw error
    return api<T>(path, options, later)
  }
}

/** Why a request has to wait until somebody signs in; null where it need not, or where the page handles it itself (a paper). */
function sessionEndOf(error: unknown, path: string): SessionEnd | null {
  if (!(error instanceof ApiProblem) || error.status !== 401 || stage || pageOwner() === null) return null
  if (path.startsWith('session') || path.startsWith('sittings/')) return null
  if (error.code === 'other-person') return { why: 'other', name: String(error.more.name ?? 'Somebody else') }
  return error.code === 'signed-out' ? { why: 'ended' } : null
}

const offline = () => new ApiProblem(0, 'offline', 'The server cannot be reached. Check your connection.')

/** Tells the server whose page this is: it refuses requests from a page of somebody who is no longer signed in. */
export function ownHeaders(): Record<string, string> {
  const owner = pageOwner()
  return owner === null ? {} : { 'thistle-person': owner }
}

/** What the server says is wrong. */
function problemOf(status: number, told: unknown): ApiProblem {
  const { detail, title, status: its, ...more } = (told ?? {}) as { detail?: string; title?: string; status?: number }
  return new ApiProblem(its ?? status, title ?? 'fault', detail ?? 'Something failed on our side. Try again.', more)
}

async function ask<T>(path: string, options: Asking): Promise<T> {
  if (stage) {
    const answered = await stage.ask(path, options)
    if (!answered) throw offline()
    if (answered.status >= 400) throw problemOf(answered.status, answered.reply)
    return answered.reply as T
  }
  try {
    return (await $fetch<unknown>(`/api/${path}`, {
      retry: 0,
      timeout: 20_000,
      headers: ownHeaders(),
      ...options,
      body: options.body as BodyInit | undefined,
    })) as T
  } catch (error) {
    if (!(error instanceof FetchError) || !error.response) throw offline()
    throw problemOf(error.response.status, error.data)
  }
}

/** The sentence of whatever was thrown. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : 'Something failed. Try again.'
}
