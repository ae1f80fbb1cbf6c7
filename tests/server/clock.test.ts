/** The time is the database's (semantics §5): a process whose machine has a wrong clock has the right time, or does not serve. */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ms, second } from '../../core/kit/time'
import { clockAhead, clockFault, serverNow, setClock } from '../../server/clock'
import type { Database } from '../../server/database/database'
import { freshDatabase, person } from '../support/database'
import { startSitting } from '../../server/domain/sittings/start'
import { day, later, openedQuiz } from '../support/quiz'
import { Caller, startServer, type RunningServer } from '../support/server'

/** What a process is started with so that its machine's clock is wrong by what a file says. */
const skewed = (file: string) => ({
  SKEW_FILE: file,
  NODE_OPTIONS: `--import=data:text/javascript,${encodeURIComponent(
    "import{readFileSync}from'node:fs';const right=Date.now;Date.now=()=>right()+(Number(readFileSync(process.env.SKEW_FILE,'utf8'))||0)",
  )}`,
})
const skew = join(mkdtempSync(join(tmpdir(), 'thistle-skew-')), 'skew')
let db: Database
let server: RunningServer
beforeAll(async () => {
  const fresh = await freshDatabase('clock', day)
  db = fresh.db
  writeFileSync(skew, '20000')
  server = await startServer(fresh.url, undefined, 1, skewed(skew))
}, 60_000)
afterAll(async () => {
  await server.stop()
  await db.close()
})

describe('the time', () => {
  const real = async () => Date.now()
  afterAll(() => setClock(real))

  it('is what the database says, counted on', async () => {
    await setClock(async () => Date.now() + 5000)
    expect(Math.abs(ms(serverNow()) - Date.now() - 5000)).toBeLessThan(50)
    expect(clockAhead()).toBeLessThan(-4900)
    await setClock(real)
    expect(Math.abs(clockAhead())).toBeLessThan(50)
  })

  it('is taken from the answer that came quickest', async () => {
    const pauses = [60, 40, 0, 50, 60]
    await setClock(async () => {
      const pause = pauses.shift()!
      await new Promise((done) => setTimeout(done, pause))
      // Of those that took long the time is from before they waited.
      return Date.now() + 3000 - (pause ? 1000 : 0)
    })
    expect(Math.abs(clockAhead() + 3000)).toBeLessThan(30)
    await setClock(real)
  })

  it('is told from a second on, and stops a process above a minute', () => {
    expect(clockFault(900)).toEqual({ sentence: null, serves: true })
    expect(clockFault(-1500)).toMatchObject({ serves: true, sentence: expect.stringMatching(/2 seconds behind/) })
    expect(clockFault(60_000)).toMatchObject({ serves: true, sentence: expect.stringMatching(/60 seconds ahead/) })
    expect(clockFault(60_001)).toMatchObject({ serves: false, sentence: expect.stringMatching(/does not serve/) })
    expect(clockFault(-61_000).serves).toBe(false)
  })
})

describe('a process whose machine is wrong', () => {
  it('has the right time all the same, and says so', async () => {
    const { body, status } = await new Caller(server.address).call('GET', '/api/health')
    expect(status).toBe(200)
    expect(Math.abs(ms(body.now as string) - Date.now())).toBeLessThan(second)
    expect(body.clock).toMatch(/20 seconds ahead/)
  })

  it('ends no paper early: neither in a request, nor by sweeping, nor in a thread', async () => {
    server.setClock(ms(day) - Date.now())
    const quiz = await openedQuiz(db, 'early', { limit: 60 })
    const student = await person(db, 'p-nell-ashdown')
    const { attempt } = await startSitting(db, student, quiz, { device: 'd1' }, day)
    // Ten seconds before its hard stop: the machine's own clock is past it.
    server.setClock(ms(later(60)) - 10 * second - Date.now())
    const nell = await new Caller(server.address).as('p-nell-ashdown')
    const maren = await new Caller(server.address).as('p-maren')
    expect((await maren.call('GET', `/api/quizzes/${quiz}/marks`)).status).toBe(200)
    await new Promise((done) => setTimeout(done, 2500))
    const { body } = await nell.call('POST', `/api/sittings/${attempt}/open`, { device: 'd1' })
    expect((body as { clock?: { ended: boolean } }).clock?.ended).toBe(false)
    server.setClock(0)
  })

  it('answers nothing where it is wrong by minutes, and serves again when it is right', async () => {
    writeFileSync(skew, String(300 * second))
    for (const path of ['/api/health', '/api/session', '/api/my/quizzes']) {
      const { status, body } = await new Caller(server.address).call('GET', path)
      expect([path, status, body.title]).toEqual([path, 503, 'clock'])
      expect(body.detail).toMatch(/300 seconds ahead of the clock of its database/)
    }
    writeFileSync(skew, '0')
    expect((await new Caller(server.address).call('GET', '/api/health')).status).toBe(200)
  })
})
