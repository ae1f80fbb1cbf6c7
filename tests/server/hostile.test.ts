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
  // In our words: none of the schema library's own.
  expect(JSON.stringify(body), what).not.toMatch(
    /Invalid |: expected |received|Too (?:small|big)|Unrecognized|[a-z] must /,
  )
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

/** A body with one of its lists holding its first entry twice. */
function doubled(value: unknown): unknown[] {
  return places(value).flatMap((place) => {
    const list = place.reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], value)
    return Array.isArray(list) && list.length ? [replaced(value, place, [list[0], ...(list as unknown[])])] : []
  })
}

describe('each list of a request with something twice', () => {
  it.each(withBody)('%s %s', async (method, file, path, body, expected) => {
    const caller = callerOf([method, file, path, body, expected])
    for (const twice of doubled(body!())) ensureAnswered(await caller.call(method, path(), twice), `${method} ${file}`)
  })
})

describe('edits that are too much', () => {
  const edits = (edit: unknown, on = 0) =>
    teacher.call('POST', '/api/quizzes/quiz-tides/edits', {
      on,
      token: `abcd${Math.random().toString(36).slice(2, 8)}.1`,
      edit,
    })
  const title = (value: string) => ({ do: 'set', path: ['content', 'title'], was: 'x', value })
  it('3,000 within one another, and 30,000 in one', async () => {
    const deep = `${'{"do":"all","edits":['.repeat(3000)}${JSON.stringify(title('deep'))}${']}'.repeat(3000)}`
    const sent = await teacher.call('POST', '/api/quizzes/quiz-tides/edits', `{"on":0,"token":"abcd.1","edit":${deep}}`)
    ensureAnswered(sent, 'deep')
    expect(sent.status).toBe(400)
    let wide: unknown = { do: 'all', edits: Array.from({ length: 100 }, () => title('x')) }
    wide = { do: 'all', edits: Array.from({ length: 100 }, () => wide) }
    const reply = await edits(wide)
    ensureAnswered(reply, 'wide')
    expect(reply.status).toBe(422)
  })
  it('a window at the end of the calendar', async () => {
    const { body } = await teacher.call('GET', '/api/quizzes/quiz-tides')
    const window = { ...(body.quiz as { rules: { windows: { id: string }[] } }).rules.windows[0]!, id: 'w-far' }
    for (const [opens, closes] of [
      ['9999-12-30T00:00:00.000Z', '9999-12-31T23:59:59.999Z'],
      ['0001-01-01T00:00:00.000Z', '9999-12-31T23:59:59.999Z'],
      ['2199-12-31T23:00:00.000Z', '2199-12-31T23:59:59.999Z'],
    ]) {
      const members = [{ ...window, opens, closes, due: null }]
      const reply = await edits({ do: 'add', to: ['rules', 'windows'], after: null, members }, body.revision as number)
      ensureAnswered(reply, `${opens} to ${closes}`)
      expect(reply.status < 400).toBe(opens!.startsWith('2199'))
    }
    ensureAnswered(await teacher.call('GET', '/api/quizzes/quiz-tides'), 'the quiz')
    ensureAnswered(await teacher.call('GET', '/api/quizzes'), 'the list')
  })
  it('rows with one id', async () => {
    const { body } = await teacher.call('GET', '/api/quizzes/quiz-tides')
    const [section] = (body.quiz as { content: { sections: { id: string }[] } }).content.sections
    const row = { type: 'text', id: 'twin', html: 'x' }
    const add = (id: string, rows: unknown[]) => ({
      do: 'add',
      to: ['content', 'sections'],
      after: null,
      members: [{ ...section, id, rows }],
    })
    for (const edit of [
      { do: 'add', to: ['sections', section!.id, 'rows'], after: null, members: [row, row] },
      add('s-twin', [row, row]),
      { do: 'all', edits: [add('s-one', [row]), add('s-two', [row])] },
      add(section!.id, []),
      add('twin', [row]),
    ]) {
      const { status } = await edits(edit, body.revision as number)
      expect(status, JSON.stringify(edit).slice(0, 200)).toBe(422)
    }
  })
  it('a token like those of the server', async () => {
    const { body } = await teacher.call('GET', '/api/quizzes/quiz-buoys')
    const { title: was } = (body.quiz as { content: { title: string } }).content
    const send = (n: number, before: string, value: string) =>
      teacher.call('POST', '/api/quizzes/quiz-buoys/edits', {
        on: body.revision,
        token: `close.${n}`,
        edit: { do: 'set', path: ['content', 'title'], was: before, value },
      })
    const revision = body.revision as number
    expect((await send(revision + 2, was, 'Another')).status).toBe(200)
    ensureAnswered(await teacher.call('POST', '/api/quizzes/quiz-buoys/close'), 'closing')
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
    'words[a]=b',
    'words=a&words=b',
    'tag=%ff%fe',
    'tag=a&tag=',
    'unusedSince=9999-12-31T23:59:59.999Z',
    'unusedSince=a&unusedSince=b',
    'grade[x]=1',
    'level=a:b&level=c',
    'stimulus=a&stimulus=b',
    'doubted=yes&doubted=yes',
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
