import { readdirSync } from 'node:fs'
import { join, relative } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { freshDatabase } from '../support/database'
import { knowSitting, routes } from '../support/routes'
import { Caller, startServer, type RunningServer } from '../support/server'
import { sampleQuestion } from '../fixtures/core'

let db: Database
let server: RunningServer
const people: Record<string, Caller> = {}

beforeAll(async () => {
  const fresh = await freshDatabase('routes', iso(Date.now()))
  db = fresh.db
  server = await startServer(fresh.url)
  await knowSitting(db)
  for (const [role, id] of Object.entries({
    teacher: 'p-maren',
    coTeacher: 'p-idris',
    student: 'p-silas-penn',
    other: 'p-greta-vance',
  }))
    people[role] = await new Caller(server.address).as(id)
  people.nobody = new Caller(server.address)
})
afterAll(async () => {
  await server.stop()
  await db.close()
})

const blank = () => sampleQuestion('number')

describe('rights', () => {
  it('the walk knows every route there is', () => {
    const folder = join(import.meta.dirname, '..', '..', 'server', 'api')
    const files = readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile() && !entry.name.startsWith('[...'))
      .map((entry) =>
        relative(folder, join(entry.parentPath, entry.name)).replace(
          /^(.*)\.(get|post|put|delete)\.ts$/,
          (_whole, path: string, method: string) => `${method.toUpperCase()} ${path}`,
        ),
      )
      .sort()
    expect(routes.map(([method, file]) => `${method} ${file}`).sort()).toEqual(files)
  })
  it.each(routes)('%s %s', async (method, _file, path, body, expected) => {
    for (const role of ['nobody', 'other', 'student', 'coTeacher', 'teacher'] as const) {
      // Routes of the session change who is signed in: they get one of their own.
      const id = {
        teacher: 'p-maren',
        coTeacher: 'p-idris',
        student: 'p-silas-penn',
        other: 'p-greta-vance',
        nobody: null,
      }[role]
      const fresh = () => (id ? new Caller(server.address).as(id) : new Caller(server.address))
      const caller = path().startsWith('/api/session') ? await fresh() : people[role]!
      const { status, body: reply } = await caller.call(method, path(), body?.())
      // Whoever signed out everywhere signs in again for what follows.
      if (path().endsWith('/everywhere') && id) people[role] = await fresh()
      if (expected[role] === true)
        expect([401, 403, 404].includes(status) || status >= 500, `${role} got ${status} ${String(reply.detail)}`).toBe(
          false,
        )
      else expect(status, `${role}: ${String(reply.detail)}`).toBe(expected[role])
      expect(JSON.stringify(reply)).not.toMatch(/node_modules|\.ts:\d/)
    }
  })
})

describe('bad input', () => {
  const cases: [string, string, string, unknown, RegExp][] = [
    ['teacher', 'POST', '/api/quizzes', { title: ' ' }, /title: Give it a title/],
    ['teacher', 'POST', '/api/quizzes', { title: 'x'.repeat(161) }, /at most 160/],
    ['teacher', 'POST', '/api/quizzes', '{not json', /not JSON/],
    ['teacher', 'POST', '/api/quizzes', [], /./],
    ['teacher', 'POST', '/api/questions', { ...blank(), points: -1 }, /points: Points cannot be below 0/],
    ['teacher', 'POST', '/api/questions', { ...blank(), kind: 'riddle' }, /./],
    ['teacher', 'POST', '/api/questions', { ...blank(), stem: 'x'.repeat(40_001) }, /40,000/],
    ['teacher', 'POST', '/api/questions', { ...blank(), stem: 'x'.repeat(1_100_000) }, /1 MB/],
    ['teacher', 'POST', '/api/questions', { ...blank(), objectives: ['obj-none'] }, /objectives is no longer there/],
    ['teacher', 'GET', '/api/questions?difficulty=9', undefined, /difficulty/],
    ['teacher', 'POST', '/api/media', new Uint8Array([1, 2, 3]), /not a PNG/],
    [
      'teacher',
      'POST',
      '/api/media',
      new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"/>'),
      /not a PNG/,
    ],
    [
      'teacher',
      'POST',
      '/api/quizzes/quiz-tides/edits',
      { on: 0, token: 'aaaa.1', edit: { do: 'set', path: ['rules', 'limit'], was: 45, value: -5 } },
      /Minutes cannot be below 0/,
    ],
    ['teacher', 'POST', '/api/quizzes/quiz-tides/edits', { on: 0, token: 'aaaa.1', edit: { do: 'explode' } }, /./],
    [
      'teacher',
      'POST',
      '/api/quizzes/quiz-tides/edits',
      { on: 0, token: 'aaaa.2', edit: { do: 'remove', from: ['sections', 'none', 'rows'], was: ['r1'] } },
      /no longer in the quiz/,
    ],
    [
      'teacher',
      'PUT',
      '/api/students/p-kit-sorrel/accommodation',
      { factor: 0.5, extraMinutes: 0, stretchWindow: false },
      /at least 1/,
    ],
    ['student', 'POST', '/api/my/quizzes/quiz-tides/start', { device: 'd1' }, /not here/],
    ['nobody', 'POST', '/api/session', { email: 'a@b.example', password: 'x' }, /do not belong together/],
    ['nobody', 'GET', '/api/quizzes/none/at/all', undefined, /nothing at this address/],
  ]
  it.each(cases)('%s %s %s is told what to mend', async (role, method, path, body, sentence) => {
    const { status, body: reply, headers } = await people[role]!.call(method, path, body)
    expect(status).toBeGreaterThanOrEqual(400)
    expect(status).toBeLessThan(500)
    expect(headers.get('content-type')).toMatch(/^application\/problem\+json/)
    expect(reply.detail).toMatch(sentence)
  })
  it('a write from another site is not carried out', async () => {
    const foreign = await people.teacher!.call(
      'POST',
      '/api/quizzes',
      { title: 'Foreign' },
      { origin: 'https://elsewhere.example' },
    )
    expect([foreign.status, foreign.body.detail]).toEqual([
      403,
      'This request comes from another site and was not carried out.',
    ])
    expect(
      (await people.teacher!.call('POST', '/api/quizzes', { title: 'Foreign' }, { 'sec-fetch-site': 'cross-site' }))
        .status,
    ).toBe(403)
    // A browser always says where a write comes from; a session's cookie without that comes from nowhere good.
    const { cookie } = people.teacher!.headers
    const bare = await fetch(`${server.address}/api/quizzes`, {
      method: 'POST',
      headers: { cookie: cookie!, 'content-type': 'application/json' },
      body: JSON.stringify({ title: 'Foreign' }),
    })
    expect(bare.status).toBe(403)
    expect(JSON.stringify((await people.teacher!.call('GET', '/api/quizzes')).body)).not.toMatch(/Foreign/)
  })
  it('cookies are HttpOnly and SameSite, and say nothing; pages carry a strict policy', async () => {
    const reply = await fetch(`${server.address}/api/session/demo`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ person: 'p-maren' }),
    })
    const cookies = reply.headers.getSetCookie()
    expect(cookies).toHaveLength(1)
    expect(cookies[0]).toMatch(/^thistle-session=[\w-]{43}; Max-Age=1209600; Path=\/; HttpOnly; SameSite=Lax$/)
    const page = await fetch(server.address)
    expect(page.headers.get('content-security-policy')).toMatch(/default-src 'none'.*frame-ancestors 'self'/)
  })
})
