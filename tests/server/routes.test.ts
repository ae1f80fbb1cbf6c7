import { readdirSync } from 'node:fs'
import { join, relative } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { itemsOf } from '../support/quiz'
import { freshDatabase, person } from '../support/database'
import { Caller, startServer, type RunningServer } from '../support/server'
import { startSitting } from '../../server/domain/sittings/start'
import { sampleQuestion } from '../fixtures/core'

let db: Database
let server: RunningServer
let attempt: string
let item: string
const people: Record<string, Caller> = {}

beforeAll(async () => {
  const fresh = await freshDatabase('routes', iso(Date.now()))
  db = fresh.db
  server = await startServer(fresh.url)
  attempt = (await startSitting(db, await person(db, 'p-silas-penn'), 'quiz-buoys', 'd1', undefined, iso(Date.now())))
    .attempt
  item = (await itemsOf(db, attempt))['q-port-mark']!.item
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

const teacherOnly = { teacher: true, coTeacher: true, student: 403, other: 403, nobody: 401 } as const
/** quiz-buoys is Maren's alone; quiz-tides she shares with Idris. */
const ownQuiz = { teacher: true, coTeacher: 404, student: 403, other: 403, nobody: 401 } as const
const sharedQuiz = { teacher: true, coTeacher: true, student: 403, other: 403, nobody: 401 } as const
const studentOnly = { teacher: 403, coTeacher: 403, student: true, other: true, nobody: 401 } as const
const ownAttempt = { teacher: 403, coTeacher: 403, student: true, other: 404, nobody: 401 } as const
const signedIn = { teacher: true, coTeacher: true, student: true, other: true, nobody: 401 } as const
const anyone = { teacher: true, coTeacher: true, student: true, other: true, nobody: true } as const
type Expected = Record<'teacher' | 'coTeacher' | 'student' | 'other' | 'nobody', true | number>

/** Imports are their teacher's alone; another's is not here. */
const noImport = { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 } as const
const blank = () => sampleQuestion('number')
/** Every route: a request that is well formed, and who may make it. `true` is anything but 401, 403, 404 and faults. */
const routes: [method: string, file: string, path: () => string, body: (() => unknown) | undefined, Expected][] = [
  ['GET', 'health', () => '/api/health', undefined, anyone],
  ['GET', 'session/index', () => '/api/session', undefined, anyone],
  [
    'POST',
    'session/index',
    () => '/api/session',
    () => ({ email: 'maren.holt@gannet.example', password: 'fair winds' }),
    anyone,
  ],
  ['DELETE', 'session/index', () => '/api/session', undefined, signedIn],
  ['GET', 'session/demo', () => '/api/session/demo', undefined, anyone],
  ['POST', 'session/demo', () => '/api/session/demo', () => ({ person: 'p-maren' }), anyone],
  ['GET', 'objectives/index', () => '/api/objectives', undefined, teacherOnly],
  [
    'POST',
    'objectives/index',
    () => '/api/objectives',
    () => ({ code: '9', title: 'Walked', parent: null, essential: false, needs: [] }),
    teacherOnly,
  ],
  [
    'PUT',
    'objectives/[id]',
    () => '/api/objectives/obj-7',
    () => ({ code: '7', title: 'Safety', parent: null, essential: true, needs: [] }),
    teacherOnly,
  ],
  [
    'DELETE',
    'objectives/[id]',
    () => '/api/objectives/none',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['GET', 'objectives/file', () => '/api/objectives/file?as=case', undefined, teacherOnly],
  [
    'POST',
    'objectives/look',
    () => '/api/objectives/look',
    () => new TextEncoder().encode('code,title\n10,Walked'),
    teacherOnly,
  ],
  [
    'POST',
    'objectives/import',
    () => '/api/objectives/import',
    () => new TextEncoder().encode('code,title\n10,Walked'),
    teacherOnly,
  ],
  ['GET', 'words/index', () => '/api/words', undefined, teacherOnly],
  [
    'PUT',
    'words/index',
    () => '/api/words',
    () => ({ on: 99, words: { schemes: [], fields: [], grades: [] } }),
    teacherOnly,
  ],
  ['GET', 'questions/index', () => '/api/questions?words=tide', undefined, teacherOnly],
  ['POST', 'questions/index', () => '/api/questions', blank, teacherOnly],
  ['POST', 'questions/preview', () => '/api/questions/preview', () => ({ question: blank() }), teacherOnly],
  ['GET', 'questions/[id]/index', () => '/api/questions/q-datum', undefined, teacherOnly],
  [
    'POST',
    'questions/[id]/versions',
    () => '/api/questions/q-datum/versions',
    () => ({ on: 99, question: blank() }),
    teacherOnly,
  ],
  ['PUT', 'questions/[id]/state', () => '/api/questions/q-flare/state', () => ({ retired: false }), teacherOnly],
  ['GET', 'questions/doubts', () => '/api/questions/doubts', undefined, teacherOnly],
  ['GET', 'questions/near', () => '/api/questions/near', undefined, teacherOnly],
  [
    'POST',
    'questions/changes/index',
    () => '/api/questions/changes',
    () => ({ questions: ['q-datum'], change: { do: 'points', points: 1 } }),
    teacherOnly,
  ],
  [
    'DELETE',
    'questions/changes/[id]',
    () => '/api/questions/changes/none',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['GET', 'questions/[id]/record', () => '/api/questions/q-datum/record', undefined, teacherOnly],
  ['PUT', 'questions/[id]/keeping', () => '/api/questions/q-datum/keeping', () => ({ folder: null }), teacherOnly],
  ['GET', 'questions/[id]/differences', () => '/api/questions/q-datum/differences?from=1&to=1', undefined, teacherOnly],
  ['GET', 'questions/[id]/remarks/index', () => '/api/questions/q-datum/remarks', undefined, teacherOnly],
  [
    'POST',
    'questions/[id]/remarks/index',
    () => '/api/questions/q-datum/remarks',
    () => ({ words: 'Is this so?', doubt: false }),
    teacherOnly,
  ],
  [
    'PUT',
    'questions/[id]/remarks/[remark]',
    () => '/api/questions/q-datum/remarks/none',
    () => ({ answered: true }),
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['POST', 'questions/file', () => '/api/questions/file', () => ({ questions: ['q-datum'], as: 'json' }), teacherOnly],
  [
    'POST',
    'imports/index',
    () => '/api/imports?name=a.md',
    () => new TextEncoder().encode('Which?\n\n= ebb'),
    teacherOnly,
  ],
  ['POST', 'imports/look', () => '/api/imports/look', () => ({ text: 'Which?\n\n= ebb' }), teacherOnly],
  ['GET', 'imports/[id]/index', () => '/api/imports/none', undefined, noImport],
  ['DELETE', 'imports/[id]/index', () => '/api/imports/none', undefined, noImport],
  ['GET', 'imports/[id]/progress', () => '/api/imports/none/progress', undefined, noImport],
  ['POST', 'imports/[id]/take', () => '/api/imports/none/take', () => ({ items: [0] }), noImport],
  ['POST', 'imports/[id]/stop', () => '/api/imports/none/stop', undefined, noImport],
  ['GET', 'files/template', () => '/api/files/template', undefined, teacherOnly],
  ['GET', 'files/schema', () => '/api/files/schema', undefined, anyone],
  ['GET', 'folders/index', () => '/api/folders', undefined, teacherOnly],
  ['POST', 'folders/index', () => '/api/folders', () => ({ name: 'Walked', parent: null }), teacherOnly],
  ['PUT', 'folders/[id]', () => '/api/folders/f-tides', () => ({ name: 'Tides' }), teacherOnly],
  [
    'DELETE',
    'folders/[id]',
    () => '/api/folders/none',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['GET', 'stimuli/index', () => '/api/stimuli?words=tide', undefined, teacherOnly],
  ['POST', 'stimuli/index', () => '/api/stimuli', () => ({ name: 'Walked', html: '<p>Words</p>' }), teacherOnly],
  ['GET', 'stimuli/[id]', () => '/api/stimuli/st-table', undefined, teacherOnly],
  [
    'PUT',
    'stimuli/[id]',
    () => '/api/stimuli/st-table',
    () => ({ on: 99, stimulus: { name: 'Walked', html: '<p>Words</p>' } }),
    teacherOnly,
  ],
  [
    'DELETE',
    'stimuli/[id]',
    () => '/api/stimuli/none',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['POST', 'quizzes/[id]/file', () => '/api/quizzes/quiz-buoys/file', () => ({ as: 'qti-2.2' }), ownQuiz],
  ['GET', 'outside/index', () => '/api/outside', undefined, teacherOnly],
  ['POST', 'outside/[bank]/ask', () => '/api/outside/weather-book/ask', undefined, teacherOnly],
  ['POST', 'outside/[bank]/sync', () => '/api/outside/harrow-bay/sync', undefined, teacherOnly],
  [
    'POST',
    'questions/[id]/take',
    () => '/api/questions/none/take',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  [
    'POST',
    'questions/[id]/fault',
    () => '/api/questions/none/fault',
    () => ({ words: 'Wrong.' }),
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  [
    'GET',
    'questions/[id]/correction',
    () => '/api/questions/q-datum/correction',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  [
    'POST',
    'questions/[id]/correction',
    () => '/api/questions/q-datum/correction',
    () => ({ take: true }),
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['GET', 'searches/index', () => '/api/searches', undefined, teacherOnly],
  ['POST', 'searches/index', () => '/api/searches', () => ({ name: 'Tides', query: { words: 'tide' } }), teacherOnly],
  [
    'DELETE',
    'searches/[id]',
    () => '/api/searches/none',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  [
    'POST',
    'media/index',
    () => '/api/media',
    () => new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1]),
    teacherOnly,
  ],
  [
    'GET',
    'media/[id]',
    () => `/api/media/${'0'.repeat(64)}`,
    undefined,
    { teacher: 404, coTeacher: 404, student: 404, other: 404, nobody: 401 },
  ],
  ['GET', 'classes/index', () => '/api/classes', undefined, teacherOnly],
  ['GET', 'classes/[id]', () => '/api/classes/c-saturday', undefined, ownQuiz],
  [
    'PUT',
    'students/[id]/accommodation',
    () => '/api/students/p-kit-sorrel/accommodation',
    () => ({ factor: 1, extraMinutes: 0, stretchWindow: false }),
    ownQuiz,
  ],
  ['GET', 'quizzes/index', () => '/api/quizzes', undefined, teacherOnly],
  ['POST', 'quizzes/index', () => '/api/quizzes', () => ({ title: 'Walked' }), teacherOnly],
  ['GET', 'quizzes/[id]/index', () => '/api/quizzes/quiz-tides', undefined, sharedQuiz],
  ['GET', 'quizzes/[id]/edits', () => '/api/quizzes/quiz-tides/edits?since=0', undefined, sharedQuiz],
  [
    'POST',
    'quizzes/[id]/edits',
    () => '/api/quizzes/quiz-buoys/edits',
    () => ({ on: 1000, token: 'walk.1', edit: { do: 'setRules', values: { grace: 1 } } }),
    ownQuiz,
  ],
  ['GET', 'quizzes/[id]/checks', () => '/api/quizzes/quiz-tides/checks', undefined, sharedQuiz],
  ['POST', 'quizzes/[id]/open', () => '/api/quizzes/quiz-buoys/open', undefined, ownQuiz],
  ['POST', 'quizzes/[id]/close', () => '/api/quizzes/quiz-lights/close', undefined, ownQuiz],
  ['PUT', 'quizzes/[id]/state', () => '/api/quizzes/quiz-chart/state', () => ({ state: 'filed' }), ownQuiz],
  [
    'PUT',
    'quizzes/[id]/release',
    () => '/api/quizzes/quiz-chart/release',
    () => ({ class: 'c-tuesday', released: true }),
    ownQuiz,
  ],
  [
    'POST',
    'quizzes/[id]/teachers',
    () => '/api/quizzes/quiz-lights/teachers',
    () => ({ email: 'nobody@gannet.example' }),
    ownQuiz,
  ],
  ['GET', 'quizzes/[id]/marks/index', () => '/api/quizzes/quiz-buoys/marks', undefined, ownQuiz],
  ['GET', 'quizzes/[id]/marks/[attempt]', () => `/api/quizzes/quiz-buoys/marks/${attempt}`, undefined, ownQuiz],
  [
    'PUT',
    'quizzes/[id]/marks/[attempt]',
    () => `/api/quizzes/quiz-buoys/marks/${attempt}`,
    () => ({ item, points: 1 }),
    ownQuiz,
  ],
  ['GET', 'my/quizzes/index', () => '/api/my/quizzes', undefined, studentOnly],
  ['GET', 'my/quizzes/[id]/index', () => '/api/my/quizzes/quiz-buoys', undefined, studentOnly],
  ['POST', 'my/quizzes/[id]/start', () => '/api/my/quizzes/quiz-lights/start', () => ({ device: 'd1' }), studentOnly],
  ['POST', 'sittings/[id]/open', () => `/api/sittings/${attempt}/open`, () => ({ device: 'd1' }), ownAttempt],
  ['GET', 'sittings/[id]/clock', () => `/api/sittings/${attempt}/clock?lease=1`, undefined, ownAttempt],
  [
    'POST',
    'sittings/[id]/answers',
    () => `/api/sittings/${attempt}/answers`,
    () => ({ lease: 1, answers: [{ item, response: null, flagged: true, seq: 1 }] }),
    { ...ownAttempt, teacher: 403, coTeacher: 403 },
  ],
  ['POST', 'sittings/[id]/page', () => `/api/sittings/${attempt}/page`, () => ({ lease: 1, page: 0 }), ownAttempt],
  [
    'POST',
    'sittings/[id]/recordings',
    () => `/api/sittings/${attempt}/recordings`,
    () => new Uint8Array([0x4f, 0x67, 0x67, 0x53]),
    ownAttempt,
  ],
  ['GET', 'reviews/[id]', () => `/api/reviews/${attempt}`, undefined, ownAttempt],
  ['POST', 'sittings/[id]/hand-in', () => `/api/sittings/${attempt}/hand-in`, () => ({ lease: 1 }), ownAttempt],
]

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
      { on: 0, token: 'aaaa.1', edit: { do: 'setRules', values: { limit: -5 } } },
      /time limit|minute|small/i,
    ],
    ['teacher', 'POST', '/api/quizzes/quiz-tides/edits', { on: 0, token: 'aaaa.1', edit: { do: 'explode' } }, /./],
    [
      'teacher',
      'POST',
      '/api/quizzes/quiz-tides/edits',
      { on: 0, token: 'aaaa.2', edit: { do: 'moveRow', row: 'none', section: 'none', after: null } },
      /no longer in the quiz/,
    ],
    [
      'teacher',
      'PUT',
      '/api/students/p-kit-sorrel/accommodation',
      { factor: 0.5, extraMinutes: 0, stretchWindow: false },
      /at least 1/,
    ],
    ['student', 'POST', '/api/my/quizzes/quiz-tides/start', { device: 'd1' }, /not open/],
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
    expect(JSON.stringify((await people.teacher!.call('GET', '/api/quizzes')).body)).not.toMatch(/Foreign/)
  })
  it('guessing passwords is slowed down', async () => {
    const statuses = []
    for (let i = 0; i < 9; i++)
      statuses.push(
        (
          await people.nobody!.call('POST', '/api/session', {
            email: 'idris.quayle@gannet.example',
            password: `wrong ${i}`,
          })
        ).status,
      )
    expect(statuses).toEqual([401, 401, 401, 401, 401, 401, 401, 401, 429])
    expect(
      (
        await people.nobody!.call('POST', '/api/session', {
          email: 'idris.quayle@gannet.example',
          password: 'fair winds',
        })
      ).status,
    ).toBe(429)
  })
  it('cookies are sealed, HttpOnly and SameSite; pages carry a strict policy', async () => {
    const reply = await fetch(`${server.address}/api/session/demo`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ person: 'p-maren' }),
    })
    expect(reply.headers.getSetCookie()[0]).toMatch(/HttpOnly; SameSite=Lax/)
    const page = await fetch(server.address)
    expect(page.headers.get('content-security-policy')).toMatch(/default-src 'none'.*frame-ancestors 'none'/)
  })
})
