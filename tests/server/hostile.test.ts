/**
 * Bad input at every route: each value of a well-formed request replaced by what it should not be, and addresses that
 * nobody gave. Whatever comes is answered with a sentence, never with a fault, and the server goes on.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { freshDatabase } from '../support/database'
import { knowSitting, routes, type Route } from '../support/routes'
import { Caller, startServer, type Reply, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let teacher: Caller
let student: Caller
beforeAll(async () => {
  const fresh = await freshDatabase('hostile', iso(Date.now()))
  db = fresh.db
  server = await startServer(fresh.url)
  await knowSitting(db)
  teacher = await new Caller(server.address).as('p-maren')
  student = await new Caller(server.address).as('p-silas-penn')
})
afterAll(async () => {
  await server.stop()
  await db.close()
})

const deep = JSON.parse('['.repeat(400) + ']'.repeat(400)) as unknown
const junk: unknown[] = [
  null,
  '',
  'x'.repeat(70_000),
  "'; DROP TABLE question; --",
  '\u0000\ud800 ￿ 👩‍🚀',
  '../../etc/passwd',
  -1,
  1e308,
  0.1234567,
  true,
  [],
  {},
  ['a', ['b']],
  { toString: 'x', constructor: { prototype: 1 } },
  deep,
]

type Path = (string | number)[]
/** The places of all values in a body, containers too; the body itself is the empty path. */
function places(value: unknown, path: Path = []): Path[] {
  if (value === null || typeof value !== 'object') return [path]
  return [path, ...Object.entries(value).flatMap(([key, inner]) => places(inner, [...path, key]))]
}
function replaced(value: unknown, path: Path, by: unknown): unknown {
  const [key, ...rest] = path
  if (key === undefined) return by
  const copy = (Array.isArray(value) ? [...value] : { ...(value as object) }) as Record<string, unknown>
  copy[key] = replaced(copy[key], rest, by)
  return copy
}

/** Answered: carried out, or refused with a sentence and without a trace of the inside. */
function ensureAnswered({ status, body, headers }: Reply, what: string): void {
  expect(status, what).toBeLessThan(500)
  if (status < 400) return
  expect(headers.get('content-type'), what).toMatch(/^application\/problem\+json/)
  expect(String(body.detail), what).toMatch(/^.{8,}$/su)
  expect(JSON.stringify(body), what).not.toMatch(/node_modules|\.ts:\d|ER_[A-Z]|SELECT |sqlState/)
}

/** Sessions are left alone, so that those who ask stay signed in. */
const walked = routes.filter(([, file]) => !file.startsWith('session'))
const callerOf = ([, , , , expected]: Route) => (expected.teacher === 403 ? student : teacher)
const withBody = walked.filter(([, , , body]) => body && !(body() instanceof Uint8Array))
const withId = walked.filter(([, , path]) => /\/api\/[a-z]+\/[^/?]+/.test(path()))

describe('each value of a request replaced', () => {
  it.each(withBody)('%s %s', async (method, file, path, body, expected) => {
    const caller = callerOf([method, file, path, body, expected])
    const whole = body!()
    // Long lists are alike from their second entry on.
    for (const place of places(whole).slice(0, 40))
      for (const [i, bad] of junk.entries()) {
        const reply = await caller.call(method, path(), replaced(whole, place, bad))
        ensureAnswered(reply, `${method} ${file}: ${place.join('.') || 'the whole'} as junk ${i}`)
      }
  })
})

describe('bodies that are none', () => {
  it.each(withBody)('%s %s', async (method, file, path, body, expected) => {
    const caller = callerOf([method, file, path, body, expected])
    for (const bad of ['{"a":', '"text"', 'null', '[1,2', '\u0000', '{"__proto__":{"role":"teacher"}}'])
      ensureAnswered(await caller.call(method, path(), bad), `${method} ${file}: ${JSON.stringify(bad)}`)
  })
})

describe('addresses that nobody gave', () => {
  it.each(withId)('%s %s', async (method, file, path, body, expected) => {
    const caller = callerOf([method, file, path, body, expected])
    for (const bad of ['%00', '..%2F..', 'a'.repeat(3000), "x'%20OR%201=1", '%E0%A4%A', '-', '__proto__', '😀']) {
      const address = path().replace(/^(\/api\/(?:my\/)?[a-z]+\/)[^/?]+/, `$1${bad}`)
      const reply = await caller.call(method, address, body?.())
      ensureAnswered(reply, `${method} ${address.slice(0, 80)}`)
      expect(reply.status, `${method} ${address.slice(0, 80)}`).toBeGreaterThanOrEqual(400)
    }
  })
})

describe('questions about the bank that make no sense', () => {
  it.each([
    'words=%00%ff',
    `words=${'a'.repeat(5000)}`,
    `words=${'a%20'.repeat(300)}`,
    'kind=nothing',
    'difficulty=1e9',
    'difficulty=abc',
    'unusedSince=yesterday',
    'from=-5',
    'from=1e12',
    'take=100000',
    `objective=${'obj-1,'.repeat(500)}`,
    'folder=%27%20OR%20%271%27%3D%271',
    'state=everything',
    'words=%25%5F%5C',
    'words[]=a&words[]=b',
    'kind=choice&kind=number',
  ])('%s', async (query) => ensureAnswered(await teacher.call('GET', `/api/questions?${query}`), query))
})

it('after all of it everybody is who they were, and the server serves', async () => {
  expect((await new Caller(server.address).call('GET', '/api/health')).status).toBe(200)
  const { body } = await student.call('GET', '/api/session')
  expect(JSON.stringify(body)).toMatch(/"role":"student"/)
  expect((await student.call('GET', '/api/questions')).status).toBe(403)
  expect((await new Caller(server.address).call('GET', '/api/questions')).status).toBe(401)
  expect(({} as Record<string, unknown>).role).toBeUndefined()
})
