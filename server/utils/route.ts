import {
  defineEventHandler,
  type EventHandler,
  type EventHandlerRequest,
  type H3Event,
  getCookie,
  getHeader,
  getQuery,
  getRouterParams,
  setHeader,
  setResponseStatus,
} from 'h3'
import { z } from 'zod'
import type { Instant } from '../../core/kit/time'
import { serverNow } from '../clock'
import { isDeeperThan } from '../../core/kit/depth'
import { speakOurWords } from '../../core/kit/schema-words'
import { currentDatabase } from '../database/current'
import type { Database } from '../database/database'
import { addressOf } from './address'
import { ensureClock } from './database-clock'
import type { Person } from '../people/people'
import { Problem } from '../domain/problem'
import { ensureRight, type Right } from '../people/rights'
import { DatabaseAway } from '../database/away'
import { AskerGone, readBytes, type ByteLimit } from './body'
import { Sent } from './job'
import { sessionCookie, signedInPerson } from '../people/session-cookie'

const jsonLimit: ByteLimit = { most: 1_000_000, sentence: 'This is more than 1 MB. Send less at once.' }
/** Seconds after which a database that is away is asked again. */
const askAgainAfter = 2
/** Nothing that is honest is deeper, and what reads it goes down as far as it does. */
const deepest = 60
const anything = z.unknown()
speakOurWords()

interface Context<P, Q, B> {
  event: H3Event<EventHandlerRequest>
  db: Database
  /** When the request was whole. */
  now: Instant
  person: Person
  /** The network address that the request comes from. */
  address: string
  params: P
  query: Q
  body: B
  /** The bytes of the request, where the route takes bytes. */
  bytes: Buffer
}

interface Spec<P extends z.ZodType, Q extends z.ZodType, B extends z.ZodType, R> {
  right: Right
  params?: P
  query?: Q
  body?: B
  /** The body may have so many bytes instead of the usual 1 MB. */
  most?: ByteLimit
  /** The request is bytes, not JSON. */
  bytes?: ByteLimit
  handle(context: Context<z.infer<P>, z.infer<Q>, z.infer<B>>): Promise<R> | R
}

/** The first thing wrong with an input, in a sentence that names where it is. */
function sentenceOf(error: z.ZodError): string {
  const issue = error.issues[0]
  if (!issue) return 'This input cannot be read.'
  const where = issue.path.filter((part) => typeof part === 'string').join(' › ')
  return where ? `${where}: ${issue.message}` : issue.message
}

function read<T extends z.ZodType>(schema: T | undefined, value: unknown): z.infer<T> {
  const result = (schema ?? anything).safeParse(value)
  if (!result.success)
    throw new Problem(400, 'input', sentenceOf(result.error), {
      issues: result.error.issues.slice(0, 10).map(({ path, message }) => ({ path, message })),
    })
  return result.data as z.infer<T>
}

/** Writes need the same origin. A browser always says where a write comes from: one with a session's cookie that does not is none of its own. */
function ensureSameOrigin(event: H3Event): void {
  if (event.method === 'GET' || event.method === 'HEAD') return
  const site = getHeader(event, 'sec-fetch-site')
  const origin = getHeader(event, 'origin')
  const foreign =
    (site && site !== 'same-origin' && site !== 'none') ||
    (origin && URL.parse(origin)?.host !== getHeader(event, 'host')) ||
    (!site && !origin && getCookie(event, sessionCookie))
  if (foreign) throw new Problem(403, 'origin', 'This request comes from another site and was not carried out.')
}

/**
 * A page says whose it is. Once somebody else has signed in with its browser, nothing is done in their name; signing in and out
 * stays possible. @throws Problem
 */
function ensureOwnPage(event: H3Event, person: Person | null): void {
  const owner = getHeader(event, 'thistle-person')
  if (owner === undefined || !person || owner === person.id || event.path.startsWith('/api/session')) return
  throw new Problem(401, 'other-person', `${person.name} has signed in with this browser. Nothing was changed.`, {
    name: person.name,
  })
}

async function readJson(event: H3Event, limit: ByteLimit): Promise<unknown> {
  const raw = (await readBytes(event, limit)).toString('utf8')
  let read: unknown
  try {
    read = raw ? JSON.parse(raw) : undefined
  } catch {
    throw new Problem(400, 'json', 'The request is not JSON that can be read.')
  }
  if (isDeeperThan(read, deepest))
    throw new Problem(400, 'json', `The request holds things within things, more than ${deepest} deep.`)
  return read
}

/** Problem details (RFC 9457), never a stack. */
export const problemDetails = (problem: Problem) => ({
  type: 'about:blank',
  title: problem.code,
  status: problem.status,
  detail: problem.sentence,
  ...problem.more,
})

export function sendProblem(event: H3Event, problem: Problem) {
  setResponseStatus(event, problem.status)
  setHeader(event, 'content-type', 'application/problem+json')
  // What cannot be answered now may be asked again in a moment.
  if (problem.status === 503) setHeader(event, 'retry-after', askAgainAfter)
  return problemDetails(problem)
}

/** The database is away: the same may be asked again in a moment, and whether it was done is told then. */
function sendAway(event: H3Event) {
  return sendProblem(
    event,
    new Problem(503, 'away', 'Thistle cannot reach its database at the moment. Nothing is lost; try again shortly.'),
  )
}

/** A route as it can be asked without HTTP: by a rehearsal, on its stage. */
export interface Playable {
  readonly right: Right
  /** @throws Problem as the route would answer it */
  play(asked: Omit<Context<unknown, unknown, unknown>, 'event' | 'bytes'>): Promise<unknown>
}

/** What a route takes and gives, for the client that the pages call it by. There is nothing of it at run time. */
export interface Typed<P, Q, B, R> {
  readonly io?: { params: P; query: Q; body: B; reply: R extends Sent<infer S> ? S : R }
}

/** A route: reads the request with schemas, checks the right, calls the domain, answers. */
export function route<
  R,
  P extends z.ZodType = z.ZodUnknown,
  Q extends z.ZodType = z.ZodUnknown,
  B extends z.ZodType = z.ZodUnknown,
>(
  spec: Spec<P, Q, B, R>,
): EventHandler<EventHandlerRequest, unknown> & Typed<z.input<P>, z.input<Q>, z.input<B>, R> & Playable {
  const handler = defineEventHandler(async (event) => {
    try {
      ensureSameOrigin(event)
      const db = currentDatabase()
      await ensureClock(db)
      const person = await signedInPerson(event, db, serverNow())
      ensureOwnPage(event, person)
      const raw = getRouterParams(event)
      await ensureRight(db, spec.right, person, raw.id)
      const bytes = spec.bytes ? await readBytes(event, spec.bytes) : Buffer.alloc(0)
      const body = spec.body
        ? read(spec.body, await readJson(event, spec.most ?? jsonLimit))
        : (undefined as z.infer<B>)
      // The instant is taken when the request is whole: one that is held back is not in time by its first bytes.
      const context = {
        event,
        db,
        now: serverNow(),
        person: person as Person,
        address: addressOf(event),
        params: read(spec.params, raw),
        query: read(spec.query, getQuery(event)),
        body,
        bytes,
      }
      const reply = await spec.handle(context)
      return reply instanceof Sent ? reply.onto(event) : reply
    } catch (error) {
      if (error instanceof Problem) return sendProblem(event, error)
      if (error instanceof AskerGone) return null
      if (error instanceof DatabaseAway) return sendAway(event)
      console.error(`${event.method} ${event.path}`, error)
      return sendProblem(
        event,
        new Problem(500, 'fault', 'Something failed on our side. What you sent was not kept; try again.'),
      )
    }
  })
  return Object.assign(handler, {
    right: spec.right,
    play: async ({ params, query, body, ...asked }: Parameters<Playable['play']>[0]) =>
      spec.handle({
        ...asked,
        params: read(spec.params, params),
        query: read(spec.query, query),
        body: spec.body ? read(spec.body, body) : (undefined as z.infer<B>),
        bytes: Buffer.alloc(0),
        event: notOverHttp,
      }),
  })
}

/** Whatever a route asks of HTTP there is none on a stage: asking is a fault of ours, told at once. */
const notOverHttp = new Proxy({} as H3Event<EventHandlerRequest>, {
  get(_event, name) {
    throw new Error(`There is no HTTP on a stage (${String(name)}).`)
  },
})
