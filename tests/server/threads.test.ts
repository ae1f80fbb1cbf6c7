/** Texts that take long to read hold up nobody but who sent them, and not for ever. */
import { Worker } from 'node:worker_threads'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Database } from '../../server/database/database'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase } from '../support/database'
import { Caller, startServer, type RunningServer } from '../support/server'
import { longestWait } from '../support/waits'

let db: Database
let server: RunningServer
let maren: Caller
let idris: Caller
let shortEnough: number
beforeAll(async () => {
  const made = await freshDatabase('threads', '2030-05-14T09:00:00.000Z')
  db = made.db
  // Long enough for what is honest, on a slow machine; npm start takes longer.
  server = await startServer(made.url, undefined, undefined, { THISTLE_LOOK_SECONDS: '4' })
  maren = await new Caller(server.address).as('p-maren')
  idris = await new Caller(server.address).as('p-idris')
  shortEnough = await allowedWait()
})
afterAll(async () => {
  await server.stop()
  await db.close()
})

/** Emphasis that never ends, in as long questions as there may be. */
const endless = (letter: string) => `${`**${letter}_`.repeat(4900)}\n\n---\n\n`.repeat(20)
const look = (caller: Caller, text: string) => caller.call('POST', '/api/imports/look', { text })
const preview = (caller: Caller, stem: string) =>
  caller.call('POST', '/api/questions/preview', { question: { ...sampleQuestion('choice'), stem } })
const maths = (tex: string) => `<p><span data-type="inline-math" data-latex="${tex}"></span></p>`

/**
 * npm run bench holds the wait to 100 ms. Here other tests share the machine: what a busy core of somebody else's costs
 * is measured in the same run, with twice that and no less than half a second allowed.
 */
async function allowedWait(): Promise<number> {
  const busy = new Worker('const end = Date.now() + 3000; while (Date.now() < end);', { eval: true })
  const ended = new Promise((done) => busy.once('exit', done))
  return Math.max(500, 2 * (await longestWait(server.address, ended)))
}

describe('what takes long to read', () => {
  it.each([
    ['emphasis that never ends', () => look(maren, endless('a'))],
    ['link definitions', () => look(maren, Array.from({ length: 30_000 }, (_, i) => `[a${i}]: x`).join('\n'))],
    ['brackets in brackets', () => look(maren, '['.repeat(100_000))],
    ['3,000 honest questions', () => look(maren, 'Which one?\n\n- [x] this\n- [ ] that\n\n---\n\n'.repeat(3000))],
    ['a wide matrix', () => preview(maren, maths(`\\begin{matrix}${'a&amp;'.repeat(900)}\\end{matrix}`))],
    ['many matrices', () => preview(maren, maths(`\\begin{matrix}${'a&amp;'.repeat(300)}\\end{matrix}`).repeat(20))],
    [
      'a large file of JSON',
      () =>
        maren.call(
          'POST',
          '/api/imports?name=large.json',
          JSON.stringify({
            format: 'thistle-questions',
            version: 1,
            questions: Array(400_000).fill({ id: 'x', deep: [[[{}]]] }),
          }),
        ),
    ],
  ])('%s', async (_what, send) => {
    const sent = send()
    expect(await longestWait(server.address, sent)).toBeLessThan(shortEnough)
    const { status, body } = await sent
    expect([200, 422]).toContain(status)
    if (status === 422) expect(body.detail).toMatch(/^[A-Z].*\.$/)
  })
  it('holds up nobody else who looks at something', async () => {
    const answered: string[] = []
    const asked = async (who: Caller, text: string, name: string) => {
      const { status } = await look(who, text)
      answered.push(name)
      return status
    }
    const all = [asked(maren, endless('a'), 'heavy'), asked(maren, endless('b'), 'heavy')]
    all.push(asked(idris, 'Which?\n\n- [x] this\n- [ ] that', 'light'))
    expect(await Promise.all(all)).toEqual([422, 422, 200])
    // Behind both of them it would be the last; how soon a thread stands is the machine's affair.
    expect(answered.at(-1)).toBe('heavy')
  })
  it('ends when whoever asked has gone, and the next is looked at', async () => {
    const gone = new AbortController()
    const heavy = fetch(`${server.address}/api/imports/look`, {
      method: 'POST',
      headers: { ...maren.headers, 'content-type': 'application/json' },
      body: JSON.stringify({ text: endless('a') }),
      signal: gone.signal,
    }).catch(() => 'gone')
    await new Promise((done) => setTimeout(done, 500))
    gone.abort()
    expect(await heavy).toBe('gone')
    const began = performance.now()
    // Maren's own next one waits for no more than the end of the thread.
    expect((await look(maren, 'Which?\n\n- [x] this\n- [ ] that')).status).toBe(200)
    expect(performance.now() - began).toBeLessThan(12_000)
  }, 30_000)
  it('maths has a bound of its own', async () => {
    const { status, body } = await preview(maren, maths('x+'.repeat(1500)))
    expect([status, body.detail]).toEqual([422, expect.stringMatching(/longer than 2,000 characters/)])
  })
})
