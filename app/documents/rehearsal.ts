import { changes, withAct, type Act } from '~~/core/rehearsal/acts'
import { iso, ms, type Instant } from '~~/core/kit/time'
import type { Asking } from '~/client/api'
import { emptyStorage, type FramedPage, type Stage, type StageReply } from './stage'
import type { Memory, Timers } from './device'

type Who = { student: string } | { inClass: string }
export type Fill = 'right' | 'wrong' | 'random' | { ability: number }

/** What is sent with each request: the rehearsal is played from its beginning. */
export interface Whole {
  who: Who
  content: 'written' | 'open'
  fresh: boolean
  draw: number
  acts: Act[]
  at: Instant
}
interface Asked {
  rehearsal: Whole
  ask?: { method: Act['method']; path: string; query: Act['query']; body?: unknown }
  fill?: { attempt: string; how: Fill }
  paper?: string
}
/** The server, as a rehearsal asks it. @throws ApiProblem of status 0 where it cannot be reached */
export type Remote = (asked: Asked) => Promise<{ status: number; reply: unknown; acts: Act[] }>

const second = 'second-device'

/**
 * A rehearsal in the teacher's browser: who sits the quiz, what they have done and when, and what time it is. The page in
 * its frame asks it as it would ask the server. Time runs on from the instant that was chosen.
 */
export class Rehearsal implements Stage {
  who: Who
  content: Whole['content'] = 'open'
  fresh = true
  draw = 0
  acts: Act[] = []
  /** The student's browser has no connection. */
  lost = false
  storage = emptyStorage()
  /** The page in the frame. */
  page: FramedPage | null = null
  private base: Instant
  private since: number
  /** Requests are answered one after another: each stands on what the ones before it did. */
  private line: Promise<unknown> = Promise.resolve()

  constructor(
    who: Who,
    at: Instant,
    private readonly remote: Remote,
    private readonly memory: Memory,
    private readonly name: string,
    private readonly timers: Timers,
    private readonly told: () => void,
    readonly edit: (item: string) => void,
  ) {
    this.who = who
    this.base = at
    this.since = timers.now()
  }

  /** What time it is in it. */
  get at(): Instant {
    return iso(ms(this.base) + this.timers.now() - this.since)
  }

  private get whole(): Whole {
    const { who, content, fresh, draw, acts, at } = this
    return { who, content, fresh, draw, acts, at }
  }

  private changed(): void {
    this.memory.write(this.name, { ...this.whole, place: this.place, kept: { ...this.storage } })
    this.told()
  }

  /** Keeps where the page in the frame stands: whoever goes to an editor comes back to it. */
  keepPlace(): void {
    this.place = this.page?.path() ?? this.door
    this.changed()
  }

  /** Goes on where this tab left it. @returns whether there was anything */
  takeUp(): boolean {
    const found = this.memory.read(this.name) as (Whole & { place: string; kept: Record<string, string> }) | null
    if (!found) return false
    const { at, kept, ...rest } = found
    Object.assign(this, rest)
    Object.assign(this.storage, kept)
    this.base = at
    this.since = this.timers.now()
    return true
  }

  enter(page: FramedPage): void {
    this.page = page
  }

  /** Answers the page in the frame. */
  async ask(path: string, { method = 'GET', body, query = {} }: Asking): Promise<StageReply> {
    if (this.lost) return null
    const given = Object.entries(query).filter(([, value]) => value !== undefined && value !== null)
    const request = {
      method,
      path,
      query: Object.fromEntries(given) as Act['query'],
      ...(body === undefined ? {} : { body }),
    }
    return this.inTurn(async () => {
      const { at } = this
      const played = await this.remote({ rehearsal: { ...this.whole, at }, ask: request }).catch(() => null)
      if (!played) return null
      if (played.status < 300 && changes(request)) {
        const { refused = [] } = (played.reply ?? {}) as { refused?: unknown[] }
        this.acts = withAct(this.acts, { ...request, at }, refused.length === 0)
        this.changed()
      }
      return { status: played.status, reply: played.reply }
    })
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.line.then(work, work)
    this.line = next.catch(() => null)
    return next
  }

  /** Whether anything has been done by now. */
  get hasBegun(): boolean {
    const { at } = this
    return this.acts.some((act) => act.at <= at && act.path.endsWith('/start'))
  }

  /** Moves the clock. @param look the page looks again; not while it waits for its connection */
  moveTo(at: Instant, look = true): void {
    const before = this.at
    this.base = at
    this.since = this.timers.now()
    this.changed()
    if (!look || this.lost) return
    if (at < before) this.toDoor()
    else this.page?.turn()
  }

  /** The page from which the student would begin. */
  toDoor(): void {
    this.page?.go(this.door)
  }
  door = '/my'
  /** Where the page in the frame begins. */
  place = ''

  /** Somebody else, another paper or other content: what was done is done no more. */
  begin(of: Partial<Pick<Whole, 'who' | 'content' | 'fresh' | 'draw'>>): void {
    Object.assign(this, { draw: 0, ...of })
    this.acts = []
    this.lost = false
    this.storage = emptyStorage()
    this.place = this.door
    this.changed()
  }

  /** What has been mended since shows at once. */
  renew(content: Whole['content']): void {
    this.content = content
    this.changed()
  }

  lose(): void {
    this.lost = true
    this.changed()
  }

  reconnect(): void {
    this.lost = false
    this.changed()
    this.page?.reconnect()
  }

  /** Fills the paper that is open in; the page shows it. @throws Error with a sentence */
  async fillIn(attempt: string, how: Fill): Promise<void> {
    await this.inTurn(async () => {
      const { at } = this
      const played = await this.remote({ rehearsal: { ...this.whole, at }, fill: { attempt, how } })
      for (const act of played.acts) this.acts = withAct(this.acts, act)
      this.changed()
    })
    // What the page had kept of its own is older than what the other device has filled in.
    this.storage = emptyStorage()
    this.page?.turn()
  }

  /** Another device of the student's takes the paper. */
  async openElsewhere(attempt: string): Promise<void> {
    await this.ask(`sittings/${attempt}/open`, { method: 'POST', body: { device: second } })
  }

  /** The question that stands at an item of a paper. */
  async questionAt(attempt: string, item: string): Promise<string | null> {
    const { reply } = await this.inTurn(() => this.remote({ rehearsal: this.whole, paper: attempt }))
    return (reply as Record<string, string>)[item] ?? null
  }
}
