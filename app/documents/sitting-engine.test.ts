import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { AnswerSave, SaveReply } from '../../server/domain/sittings/save'
import type { OpenedSitting, SittingClock } from '../../server/domain/sittings/sitting'
import { ApiProblem } from '../client/api'
import { realTimers } from './device'
import { rememberedSittings, sendLeftOver, SittingEngine, type SittingRemote } from './sitting-engine'

const start = Date.parse('2030-01-01T19:00:00.000Z')

/** What the server says of a question that was checked, or of which hints were given. */
const helped = (isRight: boolean | null, hints: string[]) => ({
  checks: isRight === null ? 0 : 1,
  left: null,
  verdict: isRight === null ? null : isRight ? ('right' as const) : ('wrong' as const),
  comments: [],
  settled: isRight === true,
  hints,
  hintsLeft: 2 - hints.length,
})

/** A server that keeps answers by lease and sequence, as the real one does. */
class Server {
  isUp = true
  lease = 1
  ended = false
  /** Places of sections that have been entered. */
  entered: number[] = []
  refuseAll: string | null = null
  /** Whose session it is: the student's, nobody's, or another student's. */
  session: 'own' | 'none' | 'other' = 'own'
  requests: { lease: number; answers: AnswerSave[] }[] = []
  kept = new Map<string, AnswerSave>()
  /** Holds the reply to the next save back until it is called. */
  hold: (() => void) | null = null
  holds = false
  asked = 0
  /** What was sent and not taken, as the teacher sees it. */
  aside: AnswerSave[] = []
  /** The reply to the next hand-in is lost on its way: it is done, and nobody hears of it. */
  losesReply = false
  savesDown = false
  /** A break under way. */
  rest: { until: string; now: string } | null = null
  /** An answer that is none, by its item. */
  invalid: string | null = null
  /** An item whose section has closed. */
  closed: string | null = null
  /** An answer for which the whole request is refused, by its item. */
  malformed: string | null = null
  /** Items that come back at the end. */
  putOff: string[] = []
  /** They were away too long from a paper that is sat in one go. */
  away = false
  /** Items that were checked, in order. */
  checked: string[] = []
  private loseReply() {
    if (!this.losesReply) return
    this.losesReply = false
    throw new ApiProblem(0, 'offline', 'The server cannot be reached.')
  }
  private clock = (): SittingClock =>
    ({
      now: new Date().toISOString(),
      deadline: null,
      hardStop: null,
      phase: this.ended ? 'ended' : 'running',
      ended: this.ended,
      atDeadline: 'handIn',
    }) as SittingClock
  private async wire<T>(answer: () => T): Promise<T> {
    this.asked++
    await Promise.resolve()
    if (!this.isUp) throw new ApiProblem(0, 'offline', 'The server cannot be reached. Check your connection.')
    if (this.session === 'none') throw new ApiProblem(401, 'signed-out', 'Sign in first.')
    if (this.session === 'other') throw new ApiProblem(404, 'not-here', 'This paper is not here.')
    return JSON.parse(JSON.stringify(answer())) as T
  }
  remote = (attempt: string): SittingRemote => ({
    open: () =>
      this.wire(() => {
        if (this.away) throw new ApiProblem(409, 'shut-out', 'You were away.')
        if (this.rest) throw new ApiProblem(409, 'break', 'You are taking a break.', this.rest)
        return {
          attempt,
          quiz: 'q',
          number: 1,
          startedAt: new Date(start).toISOString(),
          lease: this.lease,
          page: 0,
          seq: Math.max(0, ...[...this.kept.values()].map((each) => each.seq)),
          tookOver: false,
          clock: this.clock(),
          sheet: { movement: 'free', pages: 3, sections: [] },
          sections: this.entered.map((place) => ({ place })),
          doors: [],
          answers: [...this.kept.values()].map(({ item, response, flagged }) => ({
            item,
            response,
            flagged,
            keptAt: new Date().toISOString(),
          })),
        } as unknown as OpenedSitting
      }),
    clock: (lease) =>
      this.wire(() => {
        if (this.away) throw new ApiProblem(409, 'shut-out', 'You were away.')
        return { ...this.clock(), leaseHeld: lease === this.lease, sections: [] }
      }),
    enter: ({ lease, section }) =>
      this.wire(() => {
        if (lease !== this.lease) throw new ApiProblem(409, 'lease', 'On another device.')
        if (section !== null) this.entered.push(section)
        return { entered: section }
      }),
    beginBreak: ({ lease }) =>
      this.wire(() => {
        if (lease !== this.lease) throw new ApiProblem(409, 'lease', 'On another device.')
        this.lease++
        this.rest = { until: new Date(start + 600_000).toISOString(), now: new Date().toISOString() }
        return this.rest
      }),
    endBreak: () =>
      this.wire(() => {
        this.rest = null
        this.lease++
        return { ended: true }
      }),
    check: ({ lease, answer }) =>
      this.wire(() => {
        if (lease !== this.lease) throw new ApiProblem(409, 'lease', 'On another device.')
        const { kept, refused } = this.save({ lease, answers: [answer] })
        const isRight = (answer.response as { text: string }).text === 'ebb'
        this.checked.push(answer.item)
        this.loseReply()
        return { now: new Date().toISOString(), saved: { kept, refused }, help: helped(isRight, []) }
      }),
    hint: ({ number }) =>
      this.wire(() => {
        this.loseReply()
        return {
          now: new Date().toISOString(),
          saved: { kept: [], refused: [] },
          help: helped(null, ['one', 'two'].slice(0, number)),
        }
      }),
    moveOn: ({ page }) => this.wire(() => ({ page, putOff: this.putOff })),
    handIn: ({ lease, answers }) =>
      this.wire(() => {
        const { kept, refused } = answers.length ? this.save({ lease, answers }) : { kept: [], refused: [] }
        if (lease !== this.lease) throw new ApiProblem(409, 'lease', 'On another device.', { saved: { kept, refused } })
        this.ended = true
        this.loseReply()
        return { handedInAt: new Date().toISOString(), state: 'handed', saved: { kept, refused } }
      }),
    save: async (body) => {
      if (this.savesDown) throw new ApiProblem(503, 'away', 'The database is away.')
      if (this.holds) {
        this.holds = false
        await new Promise<void>((done) => {
          this.hold = done
        })
      }
      return this.wire(() => this.save(body))
    },
  })
  private save({ lease, answers }: { lease: number; answers: AnswerSave[] }): SaveReply {
    if (answers.some(({ item }) => item === this.malformed)) throw new ApiProblem(400, 'input', 'Malformed.')
    if (this.refuseAll) throw new ApiProblem(422, 'answer', this.refuseAll)
    this.requests.push({ lease, answers })
    const reason = this.ended ? 'ended' : lease === this.lease ? null : 'lease'
    const reply: Pick<SaveReply, 'kept' | 'refused'> = { kept: [], refused: [] }
    for (const each of answers) {
      const refusal = reason ?? (each.item === this.invalid ? 'invalid' : each.item === this.closed ? 'section' : null)
      if (refusal) {
        this.aside.push(each)
        reply.refused.push({
          item: each.item,
          reason: refusal,
          ...(refusal === 'invalid' ? { sentence: 'This is no answer.' } : {}),
        })
      } else {
        this.kept.set(each.item, each)
        reply.kept.push(each.item)
      }
    }
    return { now: new Date().toISOString(), hardStop: null, ...reply }
  }
}

let server: Server
let said: string[]
let kept: Map<string, string>
let store: SittingEngine
const textOf = (item: string) => (server.kept.get(item)?.response as { text: string } | undefined)?.text
const memory = {
  read: (name: string) => JSON.parse(kept.get(name) ?? 'null') as unknown,
  write: (name: string, value: unknown) => kept.set(name, JSON.stringify(value)),
  forget: (name: string) => kept.delete(name),
  names: (beginning: string) => [...kept.keys()].filter((name) => name.startsWith(beginning)),
}
async function opened(attempt: string, on = server): Promise<SittingEngine> {
  const engine = new SittingEngine(attempt, on.remote(attempt), memory, realTimers, 'device', {
    changed: () => {},
    serverTime: () => {},
    say: (words) => said.push(words),
  })
  await engine.open()
  return engine
}
/** A page that is loaded again has no timers of the one before. */
async function reload() {
  vi.clearAllTimers()
  store = await opened('a')
}
beforeEach(async () => {
  vi.useFakeTimers({ now: start })
  server = new Server()
  said = []
  kept = new Map()
  store = await opened('a')
})
afterEach(() => {
  vi.useRealTimers()
})

describe('checking while working', () => {
  it('keeps the answer first, says what it is, and closes the question when it is right', async () => {
    store.change('i1', { response: { text: 'flood' } })
    await store.check('i1')
    expect([textOf('i1'), store.help.i1!.verdict, store.canWriteIn('i1')]).toEqual(['flood', 'wrong', true])
    store.change('i1', { response: { text: 'ebb' } })
    expect(store.help.i1!.verdict).toBeNull()
    await store.check('i1')
    expect([textOf('i1'), store.help.i1!.verdict, store.canWriteIn('i1')]).toEqual(['ebb', 'right', false])
    store.change('i1', { response: { text: 'changed' } })
    await vi.advanceTimersByTimeAsync(1000)
    expect([textOf('i1'), store.canWriteIn('i2'), store.pending.size]).toEqual(['ebb', true, 0])
  })
  it('an answer kept before the page was opened is checked as it is; an empty one is not', async () => {
    store.change('i1', { response: { text: 'ebb' } })
    await vi.advanceTimersByTimeAsync(1000)
    await reload()
    await store.check('i1')
    expect([server.checked, store.help.i1!.verdict]).toEqual([['i1'], 'right'])
    await expect(store.check('i2')).rejects.toThrow(/first/)
    expect(server.checked).toEqual(['i1'])
  })
  it('nothing is written in the question on the way; a lost connection is said, and nothing is lost', async () => {
    store.change('i1', { response: { text: 'ebb' } })
    const asking = store.check('i1')
    store.change('i1', { response: { text: 'quick' } })
    await asking
    expect([textOf('i1'), store.answers.i1!.response]).toEqual(['ebb', { text: 'ebb' }])
    server.isUp = false
    store.change('i2', { response: { text: 'ebb' } })
    await expect(store.check('i2')).rejects.toThrow(/connection/)
    expect([store.offline, store.canWriteIn('i2'), store.pending.size]).toEqual([true, true, 1])
    server.isUp = true
    server.losesReply = true
    await expect(store.check('i2')).rejects.toThrow(/connection/)
    await store.check('i2')
    expect([textOf('i2'), store.help.i2!.verdict]).toEqual(['ebb', 'right'])
    server.lease = 2
    store.change('i3', { response: { text: 'x' } })
    await expect(store.check('i3')).rejects.toThrow()
    expect(store.lease).toBe('lost')
  })
  it('hints come one after another; a lost reply gives the same one again', async () => {
    server.losesReply = true
    await expect(store.hint('i1')).rejects.toThrow(/connection/)
    await store.hint('i1')
    expect(store.help.i1!.hints).toEqual(['one'])
    await store.hint('i1')
    expect(store.help.i1!.hints).toEqual(['one', 'two'])
  })
})

describe('one sitting', () => {
  it('whoever was away is told, what they wrote is sent, and once let in they go on', async () => {
    server.isUp = false
    store.change('i1', { response: { text: 'written offline' } })
    await vi.advanceTimersByTimeAsync(5000)
    server.isUp = true
    server.away = true
    await store.ask()
    await vi.advanceTimersByTimeAsync(20)
    expect([store.phase, store.refused, textOf('i1')]).toEqual(['loading', 'You were away.', 'written offline'])
    await expect(store.open()).rejects.toThrow('You were away.')
    server.away = false
    await store.open()
    expect([store.phase, store.refused, store.canWrite]).toEqual(['sitting', '', true])
  })
})

describe('a break', () => {
  it('sends what was written, covers the paper, and takes nothing until the student goes on', async () => {
    store.change('i1', { response: { text: 'ebb' } })
    await store.takeBreak()
    expect([textOf('i1'), store.rest?.until, store.canWrite]).toEqual([
      'ebb',
      new Date(start + 600_000).toISOString(),
      false,
    ])
    store.change('i1', { response: { text: 'later' } })
    const { asked } = server
    await vi.advanceTimersByTimeAsync(60_000)
    expect([server.asked, textOf('i1')]).toEqual([asked, 'ebb'])
    await store.goOn()
    expect([store.rest, store.canWrite, store.lease]).toEqual([null, true, 'held'])
    store.change('i1', { response: { text: 'flood' } })
    await vi.advanceTimersByTimeAsync(1000)
    expect(textOf('i1')).toBe('flood')
  })
  it('takes no answer on its way in', async () => {
    store.change('i1', { response: { text: 'ebb' } })
    const taking = store.takeBreak()
    store.change('i1', { response: { text: 'too late' } })
    await taking
    await store.goOn()
    await vi.advanceTimersByTimeAsync(1000)
    expect([textOf('i1'), server.aside]).toEqual(['ebb', []])
  })
  it('is not begun while something is not kept; a page that is loaded again stays covered', async () => {
    server.savesDown = true
    store.change('i1', { response: { text: 'ebb' } })
    const taking = store.takeBreak()
    const refused = expect(taking).rejects.toMatchObject({ code: 'offline' })
    await vi.advanceTimersByTimeAsync(30_000)
    await refused
    expect([store.rest, store.canWrite]).toEqual([null, true])
    server.savesDown = false
    await vi.advanceTimersByTimeAsync(30_000)
    await store.takeBreak()
    await expect(reload()).rejects.toMatchObject({ code: 'break' })
  })
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
    server.holds = true
    store.change('i1', { response: { text: 'ebb' } })
    await vi.advanceTimersByTimeAsync(500)
    store.change('i1', { response: { text: 'flood' } })
    server.hold!()
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
    expect([textOf('i1'), server.ended, store.phase, kept.get('thistle:sitting:a') ?? null]).toEqual([
      'one',
      true,
      'ended',
      null,
    ])
  })
  it('does not hand in before a recording that is on its way has arrived', async () => {
    let arrives = () => {}
    const sent = store.keepFile('i1', async () => {
      await new Promise<void>((done) => {
        arrives = done
      })
      return { sound: '/api/media/x', seconds: 3 }
    })
    const handing = store.handIn()
    await vi.advanceTimersByTimeAsync(5000)
    expect([store.sending, server.ended]).toEqual([1, false])
    arrives()
    await Promise.all([sent, handing])
    expect([store.sending, server.ended, server.kept.get('i1')?.response]).toEqual([
      0,
      true,
      { sound: '/api/media/x', seconds: 3 },
    ])
  })
  it('a recording that arrives when the sitting has ended, or another device has it, goes aside and not away', async () => {
    for (const [item, happens] of [
      ['i1', () => (server.lease = 2)],
      ['i2', () => (server.ended = true)],
    ] as const) {
      let arrives = () => {}
      const sent = store.keepFile(item, async () => {
        await new Promise<void>((done) => {
          arrives = done
        })
        return { sound: `/api/media/${item}`, seconds: 3 }
      })
      happens()
      await vi.advanceTimersByTimeAsync(15_100)
      store.leave()
      arrives()
      await sent
      await vi.advanceTimersByTimeAsync(10)
      expect(server.aside.at(-1)?.response).toEqual({ sound: `/api/media/${item}`, seconds: 3 })
      if (item === 'i1') store = await opened('a')
    }
  })
  it('does not hand in without a recording that could not be sent', async () => {
    const sent = store.keepFile('i1', () => Promise.reject(new ApiProblem(0, 'offline', 'The server is away.')))
    await expect(Promise.all([store.handIn(), sent.catch(() => {})])).rejects.toThrow('away')
    expect([store.sending, server.ended]).toEqual([0, false])
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
  it('hands in all of 350 answers that were written without a connection', async () => {
    server.isUp = false
    for (let i = 0; i < 350; i++) store.change(`i${i}`, { response: { text: `words ${i}` } })
    await vi.advanceTimersByTimeAsync(5000)
    await expect(store.handIn()).rejects.toThrow(/kept on this device/)
    server.isUp = true
    await store.handIn()
    expect([server.kept.size, textOf('i349'), server.ended, kept.size]).toEqual([350, 'words 349', true, 0])
    expect(Math.max(...server.requests.map(({ answers }) => answers.length))).toBeLessThanOrEqual(100)
  })
  it('parts long texts over several requests', async () => {
    server.isUp = false
    for (let i = 0; i < 40; i++) store.change(`i${i}`, { response: { text: 'x'.repeat(20_000) } })
    server.isUp = true
    await vi.advanceTimersByTimeAsync(60_000)
    expect(server.kept.size).toBe(40)
    for (const request of server.requests) expect(JSON.stringify(request).length).toBeLessThan(900_000)
  })
  it('a hand-in whose reply is lost is said again, and nothing is forgotten before it is heard of', async () => {
    server.savesDown = true
    store.change('i1', { response: { text: 'last words' } })
    server.losesReply = true
    await expect(store.handIn()).rejects.toThrow(/kept on this device/)
    expect([server.ended, store.phase, kept.get('thistle:sitting:a')]).toEqual([
      true,
      'sitting',
      expect.stringContaining('last words'),
    ])
    server.savesDown = false
    await store.handIn()
    expect([textOf('i1'), store.phase, kept.size]).toEqual(['last words', 'ended', 0])
  })
  it('two flushes at once are one: nothing is sent twice', async () => {
    store.change('i1', { response: { text: 'once' } })
    server.holds = true
    const first = store.flush()
    await vi.advanceTimersByTimeAsync(1)
    const others = [store.flush(), store.flush()]
    store.change('i2', { response: { text: 'meanwhile' } })
    server.hold!()
    await Promise.all([first, ...others])
    expect(server.requests.map(({ answers }) => answers.map(({ item }) => item))).toEqual([['i1'], ['i2']])
  })
  it('what is unsent when another device takes over goes aside, not away', async () => {
    server.isUp = false
    store.change('i1', { response: { text: 'of the old device' } })
    await vi.advanceTimersByTimeAsync(700)
    server.lease = 2
    server.isUp = true
    await vi.advanceTimersByTimeAsync(20_000)
    expect([store.lease, store.pending.size, server.aside.map((each) => each.item)]).toEqual(['lost', 0, ['i1']])
    expect(server.kept.size).toBe(0)
  })
  it('what is to be set aside waits for the connection, over reloads too', async () => {
    server.isUp = false
    store.change('i1', { response: { text: 'older' } })
    server.isUp = true
    server.lease = 7
    const real = server.remote
    server.remote = (attempt) => ({
      ...real(attempt),
      save: () => Promise.reject(new ApiProblem(0, 'offline', 'The server cannot be reached.')),
    })
    await reload()
    await vi.advanceTimersByTimeAsync(3000)
    await reload()
    server.remote = real
    expect(server.aside).toEqual([])
    await reload()
    await vi.advanceTimersByTimeAsync(3000)
    expect(server.aside.map((each) => each.response)).toEqual([{ text: 'older' }])
    expect(server.requests.map(({ lease }) => lease)).toEqual([1])
  })
  it('what was left in a browser is sent when the student comes back to another page, and only then forgotten', async () => {
    server.isUp = false
    store.change('i1', { response: { text: 'left' } })
    store.leave()
    await vi.advanceTimersByTimeAsync(700)
    expect(rememberedSittings(memory)).toEqual(['a'])
    const { save } = server.remote('a')
    await expect(sendLeftOver('a', save, memory)).rejects.toThrow()
    server.isUp = true
    server.session = 'other'
    await expect(sendLeftOver('a', save, memory)).rejects.toThrow()
    expect(rememberedSittings(memory)).toEqual(['a'])
    server.session = 'own'
    await sendLeftOver('a', save, memory)
    expect([textOf('i1'), rememberedSittings(memory)]).toEqual(['left', []])
  })
  it('one answer that is refused does not stop the others of its batch', async () => {
    server.invalid = 'i2'
    server.malformed = 'i3'
    server.isUp = false
    for (const item of ['i1', 'i2', 'i3', 'i4']) store.change(item, { response: { text: item } })
    server.isUp = true
    await vi.advanceTimersByTimeAsync(20_000)
    expect([[...server.kept.keys()], said, store.pending.size]).toEqual([
      ['i1', 'i4'],
      ['This is no answer.', 'Malformed.'],
      0,
    ])
  })
  it('what came after its section had closed is said, and the paper shows what the server has', async () => {
    store.change('i1', { response: { text: 'in time' } })
    await vi.advanceTimersByTimeAsync(1000)
    server.closed = 'i1'
    store.change('i1', { response: { text: 'too late' } })
    await vi.advanceTimersByTimeAsync(2000)
    expect(said.at(-1)).toContain('This section had closed')
    expect([store.answers.i1?.response, store.pending.size]).toEqual([{ text: 'in time' }, 0])
  })
  it('a reload comes back to the page and the question where it was', async () => {
    await store.goTo(2)
    store.goes('i7')
    await reload()
    expect([store.page, store.here]).toEqual([2, 'i7'])
  })
  it('a section is entered after what was written has gone, and its clock is known then', async () => {
    store.change('i1', { response: { text: 'before' } })
    await store.enter(1)
    expect([textOf('i1'), server.entered, store.sections.map(({ place }) => place)]).toEqual(['before', [1], [1]])
  })
  it('without a connection a section is not entered; on an older lease it turns to reading', async () => {
    server.isUp = false
    await expect(store.enter(1)).rejects.toThrow()
    server.isUp = true
    expect([server.entered, store.lease]).toEqual([[], 'held'])
    server.lease = 2
    await expect(store.enter(1)).rejects.toMatchObject({ code: 'lease' })
    expect([server.entered, store.lease]).toEqual([[], 'lost'])
  })
  it('a page that the paper does not have is never opened', async () => {
    kept.set('thistle:sitting:a', JSON.stringify({ lease: 1, seq: 0, page: 40, here: 'gone', struck: {}, pending: {} }))
    await reload()
    expect(store.page).toBe(2)
  })
  it('what an earlier release remembered is taken up as well', async () => {
    const pending = { i1: { response: { text: 'old' }, flagged: false, seq: 4 } }
    kept.set('thistle:sitting:a', JSON.stringify({ lease: 1, seq: 4, struck: {}, pending }))
    await reload()
    await vi.advanceTimersByTimeAsync(500)
    expect([store.page, textOf('i1')]).toEqual([0, 'old'])
  })
  it('another paper in the same tab begins at its own beginning', async () => {
    await store.goTo(2)
    store.goes('i7')
    store.strike('i7', 'b')
    const other = await opened('b')
    expect([other.page, other.here, other.struck]).toEqual([0, null, {}])
    const again = await opened('a')
    expect([again.page, again.here, again.struck]).toEqual([2, 'i7', { i7: ['b'] }])
  })
  it('a reply that comes late lands on its own paper, never on the one opened since', async () => {
    server.holds = true
    store.change('i1', { response: { text: 'of the first' } })
    await vi.advanceTimersByTimeAsync(500)
    store.leave()
    const second = new Server()
    const other = await opened('b', second)
    other.change('i1', { response: { text: 'of the second' } })
    server.lease = 5
    server.hold!()
    await vi.advanceTimersByTimeAsync(2000)
    expect([other.lease, other.pending.size, other.answers.i1!.response]).toEqual([
      'held',
      0,
      { text: 'of the second' },
    ])
    expect([...second.kept.values()].map((each) => each.response)).toEqual([{ text: 'of the second' }])
  })
  it('leaving sends what is pending once more and stops all timers', async () => {
    store.change('i1', { response: { text: 'last' } })
    store.leave()
    await vi.advanceTimersByTimeAsync(10)
    expect([textOf('i1'), vi.getTimerCount()]).toEqual(['last', 0])
    const { asked } = server
    await vi.advanceTimersByTimeAsync(120_000)
    expect(server.asked).toBe(asked)
  })
  it('leaving over a lost connection stops all timers too; the answers wait in the browser', async () => {
    server.isUp = false
    store.change('i1', { response: { text: 'kept here' } })
    await vi.advanceTimersByTimeAsync(700)
    store.leave()
    await vi.advanceTimersByTimeAsync(10)
    expect(vi.getTimerCount()).toBe(0)
    server.isUp = true
    store = await opened('a')
    await vi.advanceTimersByTimeAsync(500)
    expect(textOf('i1')).toBe('kept here')
  })
})
