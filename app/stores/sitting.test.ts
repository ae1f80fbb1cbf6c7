import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { offline, overTheWire, pageWith, refused } from '../testing/page'

const start = Date.parse('2030-01-01T19:00:00.000Z')
type Sent = { item: string; response: { text: string } | null; flagged: boolean; seq: number }

/** A server that keeps answers by lease and sequence, as the real one does. */
class Server {
  isUp = true
  lease = 1
  ended = false
  refuseAll: string | null = null
  /** Whose session it is: the student's, nobody's, or another student's. */
  session: 'own' | 'none' | 'other' = 'own'
  requests: { lease: number; answers: Sent[] }[] = []
  kept = new Map<string, Sent>()
  clock = () => ({
    now: new Date().toISOString(),
    deadline: null,
    hardStop: null,
    phase: this.ended ? 'ended' : 'running',
    ended: this.ended,
    atDeadline: 'handIn',
  })
  answer = (path: string, { body, query }: { body?: unknown; query?: Record<string, unknown> }) => {
    if (!this.isUp) throw offline()
    if (this.session === 'none') throw refused(401, 'Sign in first.')
    if (this.session === 'other') throw refused(404, 'This paper is not here.')
    if (path.endsWith('/open')) {
      return {
        attempt: path.split('/')[1],
        quiz: 'q',
        number: 1,
        startedAt: new Date(start).toISOString(),
        lease: this.lease,
        page: 0,
        seq: Math.max(0, ...[...this.kept.values()].map((each) => each.seq)),
        tookOver: false,
        clock: this.clock(),
        sheet: { movement: 'free', pages: 3, sections: [] },
        answers: [...this.kept.values()].map(({ item, response, flagged }) => ({
          item,
          response,
          flagged,
          keptAt: new Date().toISOString(),
        })),
      }
    }
    if (path.endsWith('/clock')) return { ...this.clock(), leaseHeld: query!.lease === this.lease }
    if (path.endsWith('/hand-in')) {
      this.ended = true
      return {}
    }
    const { lease, answers } = body as { lease: number; answers: Sent[] }
    if (this.refuseAll) throw refused(422, this.refuseAll)
    this.requests.push({ lease, answers })
    const reason = this.ended ? 'ended' : lease === this.lease ? null : 'lease'
    if (!reason) for (const each of answers) this.kept.set(each.item, each)
    return {
      now: new Date().toISOString(),
      kept: reason ? [] : answers.map(({ item }) => item),
      refused: reason ? answers.map(({ item }) => ({ item, reason })) : [],
    }
  }
}

let server: Server
let said: string[]
let store: ReturnType<typeof import('./sitting').useSitting>
const textOf = (item: string) => server.kept.get(item)?.response?.text
async function freshStore() {
  const { createPinia, setActivePinia } = await import('pinia')
  setActivePinia(createPinia())
  store = (await import('./sitting')).useSitting()
  await store.open('a')
}
/** A page that is loaded again has no timers of the one before. */
async function reload() {
  vi.clearAllTimers()
  await freshStore()
}
beforeEach(async () => {
  vi.useFakeTimers({ now: start })
  server = new Server()
  said = (await pageWith(server.answer)).said
  await freshStore()
})
afterEach(() => {
  store.leave()
  vi.useRealTimers()
})

describe('a sitting on a device', () => {
  it('an answer is on the server within a second', async () => {
    store.change('i1', { response: { text: 'ebb' } })
    await vi.advanceTimersByTimeAsync(1000)
    expect([textOf('i1'), store.pending.size]).toEqual(['ebb', 0])
    expect(store.keptAt).not.toBeNull()
  })
  it('typing on is one save, of the last that was written', async () => {
    for (const text of ['e', 'eb', 'ebb']) {
      store.change('i1', { response: { text } })
      await vi.advanceTimersByTimeAsync(100)
    }
    await vi.advanceTimersByTimeAsync(1000)
    expect(server.requests.map((request) => request.answers.map((each) => each.response?.text))).toEqual([['ebb']])
  })
  it('what is written while a save is on its way is not taken for saved', async () => {
    const real = server.answer
    let release = () => {}
    vi.stubGlobal('$fetch', async (path: string, options: { body?: unknown }) => {
      if (path.endsWith('/answers') && !server.requests.length)
        await new Promise<void>((done) => {
          release = done
        })
      return overTheWire(real(path.replace('/api/', ''), overTheWire(options)))
    })
    store.change('i1', { response: { text: 'ebb' } })
    await vi.advanceTimersByTimeAsync(500)
    store.change('i1', { response: { text: 'flood' } })
    release()
    await vi.advanceTimersByTimeAsync(2000)
    expect([textOf('i1'), store.pending.size]).toEqual(['flood', 0])
  })
  it('a lost connection stops nothing: all is sent when it is back', async () => {
    server.isUp = false
    store.change('i1', { response: { text: 'one' } })
    await vi.advanceTimersByTimeAsync(600)
    store.change('i2', { response: { text: 'two' }, flagged: true })
    await vi.advanceTimersByTimeAsync(5000)
    expect([store.offline, store.pending.size, store.canWrite]).toEqual([true, 2, true])
    server.isUp = true
    await vi.advanceTimersByTimeAsync(16_000)
    expect([store.offline, store.pending.size, textOf('i1'), textOf('i2')]).toEqual([false, 0, 'one', 'two'])
  })
  it('what this browser had not sent is sent after a reload', async () => {
    server.isUp = false
    store.change('i1', { response: { text: 'kept here' } })
    store.strike('i2', 'b')
    await vi.advanceTimersByTimeAsync(600)
    server.isUp = true
    await reload()
    await vi.advanceTimersByTimeAsync(100)
    expect([textOf('i1'), store.struck]).toEqual(['kept here', { i2: ['b'] }])
  })
  it('what was not sent before another device took over is set aside, not written over its work', async () => {
    server.isUp = false
    store.change('i1', { response: { text: 'old' } })
    await vi.advanceTimersByTimeAsync(600)
    server.isUp = true
    server.lease = 3
    server.kept.set('i1', { item: 'i1', response: { text: 'new' }, flagged: false, seq: 9 })
    await reload()
    await vi.advanceTimersByTimeAsync(2000)
    expect([textOf('i1'), store.setAside, server.requests.at(-1)?.lease]).toEqual(['new', 1, 1])
  })
  it('turns to reading when another device has the lease', async () => {
    server.lease = 2
    store.change('i1', { response: { text: 'late' } })
    await vi.advanceTimersByTimeAsync(1000)
    expect([store.lease, store.canWrite]).toEqual(['lost', false])
    store.change('i2', { response: { text: 'nothing' } })
    await vi.advanceTimersByTimeAsync(1000)
    expect(server.kept.size).toBe(0)
  })
  it('hears of the end from the clock', async () => {
    server.ended = true
    await vi.advanceTimersByTimeAsync(15_100)
    expect([store.phase, store.canWrite]).toEqual(['ended', false])
  })
  it('does not hand in over a lost connection what has not arrived', async () => {
    server.isUp = false
    store.change('i1', { response: { text: 'one' } })
    await expect(store.handIn()).rejects.toThrow(/kept on this device/)
    server.isUp = true
    await store.handIn()
    expect([textOf('i1'), server.ended, store.phase, localStorage.getItem('thistle:sitting:a')]).toEqual([
      'one',
      true,
      'ended',
      null,
    ])
  })
  it('says what the server will never take, and goes on', async () => {
    server.refuseAll = 'This answer is longer than 2,000 characters.'
    store.change('i1', { response: { text: 'x'.repeat(3000) } })
    await vi.advanceTimersByTimeAsync(1000)
    expect([said, store.pending.size, store.offline]).toEqual([
      ['This answer is longer than 2,000 characters.'],
      0,
      false,
    ])
  })
  it.each(['none', 'other'] as const)(
    'signed out (session: %s) loses nothing and says so, until the student is back',
    async (session) => {
      server.session = session
      store.change('i1', { response: { text: 'written on' } })
      await vi.advanceTimersByTimeAsync(3000)
      expect([store.signedOut, store.offline, store.pending.size, said]).toEqual([true, false, 1, []])
      await expect(store.handIn()).rejects.toThrow(/kept on this device/)
      server.session = 'own'
      await vi.advanceTimersByTimeAsync(16_000)
      expect([store.signedOut, store.pending.size, textOf('i1')]).toEqual([false, 0, 'written on'])
    },
  )
  it('a reload comes back to the page and the question where it was', async () => {
    await store.goTo(2)
    store.goes('i7')
    await reload()
    expect([store.page, store.here]).toEqual([2, 'i7'])
  })
  it('a page that the paper does not have is never opened', async () => {
    localStorage.setItem(
      'thistle:sitting:a',
      JSON.stringify({ lease: 1, seq: 0, page: 40, here: 'gone', struck: {}, pending: {} }),
    )
    await reload()
    expect(store.page).toBe(2)
  })
  it('what an earlier release remembered is taken up as well', async () => {
    const pending = { i1: { response: { text: 'old' }, flagged: false, seq: 4 } }
    localStorage.setItem('thistle:sitting:a', JSON.stringify({ lease: 1, seq: 4, struck: {}, pending }))
    await reload()
    await vi.advanceTimersByTimeAsync(500)
    expect([store.page, textOf('i1')]).toEqual([0, 'old'])
  })
  it('another paper in the same tab begins at its own beginning', async () => {
    await store.goTo(2)
    store.goes('i7')
    store.strike('i7', 'b')
    await store.open('b')
    expect([store.page, store.here, store.struck]).toEqual([0, null, {}])
    await store.open('a')
    expect([store.page, store.here, store.struck]).toEqual([2, 'i7', { i7: ['b'] }])
  })
})
