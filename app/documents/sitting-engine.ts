import type { Instant } from '~~/core/kit/time'
import type { Sheet, SheetQuestion } from '~~/core/paper/schema'
import { lowestPage } from '~~/core/paper/turning'
import type { HandedIn } from '~~/server/domain/sittings/hand-in'
import type { AnswerSave, Kept, SaveReply } from '~~/server/domain/sittings/save'
import type { SectionClock } from '~~/server/domain/sittings/section-clocks'
import type { Rest } from '~~/server/domain/sittings/breaks'
import type { Helping } from '~~/server/domain/sittings/working'
import type { ItemHelp } from '~~/server/domain/sittings/help'
import type { OpenedSitting, SittingClock } from '~~/server/domain/sittings/sitting'
import type { Response } from '~/components/paper/response'
import { ApiProblem } from '../client/api'
import type { Memory, Timers } from './device'
import { pagesBySection, withPutOff } from './put-off'

/** The server as a sitting asks it. @throws ApiProblem */
export interface SittingRemote {
  open(body: { device: string; language?: string | null }): Promise<OpenedSitting>
  save(body: { lease: number; answers: AnswerSave[] }): Promise<SaveReply>
  clock(lease: number): Promise<SittingClock & { leaseHeld: boolean; sections: SectionClock[] }>
  moveOn(body: { lease: number; page: number }): Promise<{ page: number; putOff: string[] }>
  beginBreak(body: { lease: number }): Promise<Rest>
  endBreak(): Promise<unknown>
  enter(body: { lease: number; section: number | null }): Promise<{ entered: number | null }>
  handIn(body: { lease: number; answers: AnswerSave[] }): Promise<HandedIn>
  check(body: { lease: number; answer: AnswerSave }): Promise<Helping>
  hint(body: { lease: number; item: string; number: number }): Promise<Helping>
}

/** What the page is told beside the state: the server's time with each reply, and sentences to say. */
export interface SittingPage {
  changed(): void
  serverTime(now: Instant): void
  say(sentence: string): void
}

interface Entry {
  response: Response | null
  flagged: boolean
  seq: number
}

interface Aside {
  lease: number
  answers: AnswerSave[]
}

/** What this browser keeps of a sitting until the server has it, and what is the student's alone: struck options, where they are. */
interface Remembered {
  page?: number
  /** The question they were at. */
  here?: string | null
  lease: number
  seq: number
  pending: Record<string, Entry>
  /** What was written under an older lease and the server has not set aside yet. */
  aside?: Aside[]
  struck: Record<string, string[]>
}

const pauseBeforeSave = 400
const heartbeat = 15_000
const firstRetry = 1000
const mostAtOnce = 100
/** Characters in one save: well under what a request may have. */
const longestAtOnce = 300_000
const mostLeftOver = 20
/** The server will never take such a request as it is. */
const hopeless = [400, 413, 422]
/** Nobody is signed in, or somebody to whom this paper does not belong. */
const strangers = [401, 403, 404]

/**
 * A sitting on this device: answers in the browser first, then on the server whenever it can be reached. One engine is
 * one attempt, so that a late reply never lands on another paper.
 */
export class SittingEngine {
  opened: OpenedSitting | null = null
  clock: SittingClock | null = null
  /** Clocks of sections that have been entered, by their place on the sheet. */
  sections: readonly SectionClock[] = []
  answers: Readonly<Record<string, Entry>> = {}
  pending: ReadonlySet<string> = new Set()
  struck: Readonly<Record<string, string[]>> = {}
  offline = false
  /** The session has ended under the paper: answers wait in the browser until somebody signs in again. */
  signedOut = false
  keptAt: Instant | null = null
  lease: 'held' | 'lost' = 'held'
  phase: 'loading' | 'sitting' | 'ended' = 'loading'
  /** A break: the questions are covered, and the clock stands. */
  rest: Rest | null = null
  page = 0
  /** The question that the student is at. */
  here: string | null = null
  setAside = 0
  /** What questions have been helped with, where the rules help while working. */
  help: Readonly<Record<string, ItemHelp>> = {}
  /** Why the paper is closed to its student for now; empty while it is not. */
  refused = ''
  /** The question whose answer is being checked, or that is being given a hint: it stays as it is meanwhile. */
  asking: string | null = null
  /** How many answers in files are on their way. */
  sending = 0

  private seq = 0
  /** As it came: what is put off stands where it was. */
  private whole: Sheet | null = null
  private stopSave: (() => void) | null = null
  private stopBeat: (() => void) | null = null
  private saving: Promise<void> | null = null
  private aside: readonly Aside[] = []
  /** One at a time after a refusal of several, so that one does not stop the others. */
  private singly = false
  private handing = false
  private pausing = false
  private retry = firstRetry
  private left = false
  private readonly files = new Set<Promise<unknown>>()

  constructor(
    readonly attempt: string,
    private readonly remote: SittingRemote,
    private readonly memory: Memory,
    private readonly timers: Timers,
    private readonly device: string,
    private readonly toPage: SittingPage,
  ) {}

  get questions(): SheetQuestion[] {
    return (
      this.opened?.sheet.sections.flatMap((section) =>
        section.entries.filter((entry): entry is SheetQuestion => entry.type === 'question'),
      ) ?? []
    )
  }

  get canWrite(): boolean {
    return this.phase === 'sitting' && this.lease === 'held' && !this.handing && !this.pausing && !this.rest
  }

  /** Whether one question can be written in: not while it is checked, nor when its last check has closed it. */
  canWriteIn(item: string): boolean {
    return this.canWrite && this.asking !== item && !this.help[item]?.settled
  }

  private changed(): void {
    if (!this.left) this.toPage.changed()
  }

  private keepHere(): void {
    if (!this.opened) return
    if (this.phase === 'ended' && !this.pending.size && !this.aside.length) {
      this.memory.forget(nameOf(this.attempt))
      this.changed()
      return
    }
    const remembered: Remembered = {
      lease: this.opened.lease,
      seq: this.seq,
      page: this.page,
      here: this.here,
      struck: this.struck,
      aside: [...this.aside],
      pending: Object.fromEntries([...this.pending].map((item) => [item, this.answers[item]!])),
    }
    this.memory.write(nameOf(this.attempt), remembered)
    this.changed()
  }

  private hear(now: Instant): void {
    if (!this.left) this.toPage.serverTime(now)
  }

  /** @param language chosen just now; absent keeps what was chosen before. @throws ApiProblem */
  async open(language?: string | null): Promise<void> {
    this.left = false
    const result = await this.remote
      .open({ device: this.device, ...(language === undefined ? {} : { language }) })
      .catch(async (error: unknown) => {
        if (error instanceof ApiProblem && error.code === 'ended')
          await sendLeftOver(this.attempt, (body) => this.remote.save(body), this.memory).catch(() => {})
        if (error instanceof ApiProblem && error.code === 'break') this.restUntil(error.more as unknown as Rest)
        if (error instanceof ApiProblem && error.code === 'shut-out') this.shutOut(error.message)
        throw error
      })
    if (this.left) return
    this.refused = ''
    this.hear(result.clock.now)
    const memory = this.memory.read(nameOf(this.attempt)) as Remembered | null
    this.rest = null
    this.opened = result
    this.whole = result.sheet
    this.arrange(result.putOff)
    this.clock = result.clock
    this.sections = result.sections
    this.help = result.help?.items ?? {}
    this.page = Math.min(Math.max(result.page, memory?.page ?? 0, this.page), this.opened.sheet.pages - 1)
    this.here ??= memory?.here ?? null
    this.struck = memory?.struck ?? this.struck
    this.answers = Object.fromEntries(
      result.answers.map(({ item, response, flagged }) => [
        item,
        { response: response as Response | null, flagged, seq: 0 },
      ]),
    )
    this.keptAt =
      result.answers
        .flatMap((each) => each.keptAt ?? [])
        .sort()
        .at(-1) ?? null
    this.seq = result.seq
    this.pending = new Set()
    this.signedOut = false
    if (memory) this.takeUp(result, memory)
    this.lease = 'held'
    this.phase = result.clock.ended ? 'ended' : 'sitting'
    this.beat()
    this.keepHere()
    if (this.hasUnsent) this.schedule(0)
  }

  /** Puts on the last page what comes back there. */
  private arrange(putOff: readonly string[] = []): void {
    this.opened = { ...this.opened!, sheet: withPutOff(this.whole!, putOff), putOff: [...putOff] }
  }

  /** The lowest page that can still be turned to. */
  get lowest(): number {
    return this.opened ? lowestPage(this.opened.sheet.movement, pagesBySection(this.opened.sheet), this.page) : 0
  }

  private get hasUnsent(): boolean {
    return this.pending.size > 0 || this.aside.length > 0
  }

  private beat(): void {
    this.stopBeat?.()
    if (this.left || this.phase !== 'sitting') return
    this.stopBeat = this.timers.after(heartbeat, () => {
      void this.ask()
      this.beat()
    })
  }

  /** Takes up what this browser wrote and the server has not: under this lease if nobody wrote in between, else to be set aside. */
  private takeUp(result: OpenedSitting, memory: Remembered): void {
    if (memory.lease === result.lease || (result.tookOver && memory.lease === result.lease - 1)) {
      this.aside = memory.aside ?? []
      this.seq = Math.max(this.seq, memory.seq)
      for (const [item, entry] of Object.entries(memory.pending)) this.write(item, entry)
      return
    }
    this.aside = leftOver(memory)
    this.setAside = Object.keys(memory.pending).length
  }

  private write(item: string, entry: Omit<Entry, 'seq'>): void {
    this.answers = { ...this.answers, [item]: { ...entry, seq: ++this.seq } }
    this.pending = new Set([...this.pending, item])
  }

  change(item: string, values: Partial<Omit<Entry, 'seq'>>): void {
    if (!this.canWriteIn(item)) return
    const help = this.help[item]
    // What was said of an answer is not said of another one.
    if (help?.verdict && 'response' in values)
      this.help = { ...this.help, [item]: { ...help, verdict: null, comments: [] } }
    this.write(item, { ...(this.answers[item] ?? { response: null, flagged: false }), ...values })
    this.keepHere()
    this.schedule(pauseBeforeSave)
  }

  /**
   * An answer that is a file: it counts as not kept until it has arrived, and handing in waits for it.
   * @param send keeps the file and gives the answer that names it
   * @throws ApiProblem when it could not be sent
   */
  async keepFile(item: string, send: () => Promise<Response>): Promise<void> {
    const file = send().then((response) => {
      // It has arrived, whatever has become of the sitting meanwhile: what comes too late is set aside.
      this.write(item, { ...(this.answers[item] ?? { flagged: false }), response })
      this.keepHere()
      void this.flush()
    })
    this.files.add(file)
    this.sending++
    this.changed()
    try {
      await file
    } finally {
      this.files.delete(file)
      this.sending--
      this.changed()
    }
  }

  strike(item: string, option: string): void {
    const before = this.struck[item] ?? []
    const after = before.includes(option) ? before.filter((each) => each !== option) : [...before, option]
    this.struck = { ...this.struck, [item]: after }
    this.keepHere()
  }

  private schedule(wait: number): void {
    this.stopSave?.()
    if (this.left) return
    this.stopSave = this.timers.after(wait, () => void this.flush())
  }

  /** Sends what is not on the server yet; one request at a time, whoever asks for it. */
  flush(): Promise<void> {
    return (this.saving ??= this.sendAll().finally(() => {
      this.saving = null
    }))
  }

  private async sendAll(): Promise<void> {
    if (!this.opened || !this.hasUnsent) return
    try {
      await this.sendSome()
    } catch (error) {
      this.noteTrouble(error)
      this.schedule(this.retry)
      this.retry = Math.min(this.retry * 2, 15_000)
      return
    }
    await this.sendAll()
  }

  /** @throws ApiProblem when the server cannot take anything just now */
  private async sendSome(): Promise<void> {
    const [older] = this.aside
    const sent = older ? older.answers : this.someOf(this.unsent())
    const lease = older ? older.lease : this.opened!.lease
    try {
      const reply = await this.remote.save({ lease, answers: sent })
      this.hear(reply.now)
      if (reply.kept.length) this.keptAt = reply.now
      this.offline = false
      this.signedOut = false
      this.retry = firstRetry
      if (older) this.aside = this.aside.filter((each) => each !== older)
      else this.took(sent, reply)
    } catch (error) {
      if (!(error instanceof ApiProblem) || !hopeless.includes(error.status)) throw error
      // The server will never take this as it is: one of several must not stop the others.
      if (sent.length > 1 && !this.singly && !older) {
        this.singly = true
        return
      }
      // The page says so and keeps what was typed.
      if (older) this.aside = this.aside.filter((each) => each !== older)
      else this.pending = new Set([...this.pending].filter((item) => !sent.some((each) => each.item === item)))
      this.toPage.say(error.message)
    }
    if (!this.pending.size) this.singly = false
    this.keepHere()
  }

  private unsent(): AnswerSave[] {
    return [...this.pending].map((item) => saveOf(item, this.answers[item]!))
  }

  /** As many as one request may carry. */
  private someOf(answers: AnswerSave[]): AnswerSave[] {
    let length = 0
    return answers.slice(0, this.singly ? 1 : mostAtOnce).filter((answer, i) => {
      length += JSON.stringify(answer).length
      return i === 0 || length <= longestAtOnce
    })
  }

  /** Hears what became of answers that were sent: what was written since stays to be sent. */
  private took(sent: readonly AnswerSave[], { refused }: Kept): void {
    const arrived = new Set(sent.filter(({ item, seq }) => this.answers[item]!.seq === seq).map(({ item }) => item))
    this.pending = new Set([...this.pending].filter((item) => !arrived.has(item)))
    const reasons = new Set(refused.map(({ reason }) => reason))
    if (reasons.has('lease')) this.lease = 'lost'
    if (reasons.has('ended')) this.end()
    if (reasons.has('section'))
      this.showWhatCounts(
        'This section had closed: what was written after it is set aside for your teacher, and the paper shows what counts.',
      )
    if (reasons.has('settled'))
      this.showWhatCounts(
        'This question was closed by its last check: what was written after it is set aside, and the paper shows what counts.',
      )
    for (const { sentence } of refused) if (sentence) this.toPage.say(sentence)
  }

  /** What came too late for its question is set aside, and the paper shows what counts. */
  private showWhatCounts(sentence: string): void {
    this.toPage.say(sentence)
    // Where the server cannot be reached now, the next opening shows it.
    if (!this.handing) void this.open().catch(() => {})
  }

  /** Asks for the clock: more time given, another device, or the end. */
  async ask(): Promise<void> {
    if (!this.opened || this.phase !== 'sitting' || this.rest) return
    try {
      const reply = await this.remote.clock(this.opened.lease)
      this.hear(reply.now)
      this.clock = reply
      this.sections = reply.sections
      if ((this.offline || this.signedOut) && this.hasUnsent) this.schedule(0)
      this.offline = false
      this.signedOut = false
      if (reply.ended) this.end()
      else if (!reply.leaseHeld) this.lease = 'lost'
      this.changed()
    } catch (error) {
      if (error instanceof ApiProblem && error.code === 'shut-out') this.shutOut(error.message)
      else this.noteTrouble(error)
    }
  }

  /** The paper is sat in one go, and its student was away too long: what was written is sent, and their teacher lets them in. */
  private shutOut(sentence: string): void {
    void this.flush()
    this.refused = sentence
    this.phase = 'loading'
    this.stopTimers()
    this.changed()
  }

  /** Signed out is not offline: waiting would not help. Anything else is tried again. */
  private noteTrouble(error: unknown): void {
    this.signedOut = error instanceof ApiProblem && strangers.includes(error.status)
    this.offline = !this.signedOut
    this.changed()
  }

  private end(): void {
    this.phase = 'ended'
    this.stopTimers()
    this.changed()
  }

  private stopTimers(): void {
    this.stopBeat?.()
    this.stopSave?.()
  }

  /**
   * Hands the paper in with all that the server has no word of yet. Nothing is forgotten before the server has said what
   * became of it.
   * @throws ApiProblem when the server cannot be reached, or another device has the paper
   */
  async handIn(): Promise<void> {
    await Promise.all(this.files)
    // What one request can carry goes first; the rest comes with the paper.
    await this.flush()
    this.handing = true
    const sent = this.unsent()
    try {
      const { saved } = await this.remote.handIn({ lease: this.opened!.lease, answers: sent })
      this.took(sent, saved)
      this.end()
    } catch (error) {
      if (error instanceof ApiProblem && (error.code === 'lease' || error.code === 'required')) {
        if (error.code === 'lease') this.lease = 'lost'
        this.took(sent, (error.more as { saved?: Kept }).saved ?? { kept: [], refused: [] })
      } else if (!(error instanceof ApiProblem) || error.isPassing || strangers.includes(error.status)) {
        this.noteTrouble(error)
        throw new ApiProblem(
          0,
          'offline',
          'The paper has not reached the server yet. Your answers are kept on this device; try again when you are connected.',
        )
      }
      throw error
    } finally {
      this.handing = false
      this.keepHere()
    }
  }

  /**
   * Has an answer checked: it is kept first, and what was written before it.
   * @throws ApiProblem when the server cannot be reached, there is nothing to check, or another device has the paper
   */
  async check(item: string): Promise<void> {
    await this.askFor(item, async (lease) => {
      const entry = this.answers[item]
      if (!entry?.response) throw new ApiProblem(422, 'check', 'Answer the question first.')
      // One that was kept before this page was opened is sent again, as it is.
      if (entry.seq === 0) this.write(item, entry)
      const answer = saveOf(item, this.answers[item]!)
      const reply = await this.remote.check({ lease, answer })
      this.took([answer], reply.saved)
      if (reply.saved.kept.length) this.keptAt = reply.now
      return reply
    })
  }

  /** Asks for the next hint of a question. @throws ApiProblem */
  async hint(item: string): Promise<void> {
    const number = (this.help[item]?.hints.length ?? 0) + 1
    await this.askFor(item, (lease) => this.remote.hint({ lease, item, number }))
  }

  private async askFor(item: string, ask: (lease: number) => Promise<Helping>): Promise<void> {
    if (!this.opened || !this.canWriteIn(item) || this.asking) return
    this.asking = item
    this.changed()
    try {
      await this.flush()
      const reply = await ask(this.opened.lease)
      this.hear(reply.now)
      this.help = { ...this.help, [item]: reply.help }
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      if (error.code === 'lease') this.lease = 'lost'
      if (error.code === 'ended') this.end()
      if (error.isPassing) {
        this.noteTrouble(error)
        throw new ApiProblem(0, 'offline', 'This takes a connection to the server. Your answer is kept; try again.')
      }
      throw error
    } finally {
      this.asking = null
      this.keepHere()
    }
  }

  private restUntil(rest: Rest): void {
    this.hear(rest.now)
    this.rest = rest
    this.stopTimers()
    this.changed()
  }

  /**
   * Takes a break: what was written goes to the server first, then the clock stands and the questions are covered.
   * @throws ApiProblem when the server cannot be reached, there is no break left, or another device has the paper
   */
  async takeBreak(): Promise<void> {
    if (!this.opened || !this.canWrite) return
    this.pausing = true
    this.changed()
    try {
      await Promise.all(this.files)
      await this.flush()
      if (this.hasUnsent)
        throw new ApiProblem(0, 'offline', 'A break is taken with a connection to the server. Try again in a moment.')
      this.restUntil(await this.remote.beginBreak({ lease: this.opened.lease }))
    } catch (error) {
      if (error instanceof ApiProblem && error.code === 'lease') this.lease = 'lost'
      throw error
    } finally {
      this.pausing = false
      this.changed()
    }
  }

  /** Ends the break and opens the paper again. @throws ApiProblem */
  async goOn(): Promise<void> {
    await this.remote.endBreak()
    await this.open()
  }

  /**
   * Enters a section: its clock begins, and what it asks comes with the sheet. Another one with a clock of its own is
   * closed; null only closes that. What was written goes to the server first.
   * @throws ApiProblem when the server cannot be reached, or another device has the paper
   */
  async enter(section: number | null): Promise<void> {
    if (!this.opened) return
    await this.flush()
    try {
      await this.remote.enter({ lease: this.opened.lease, section })
    } catch (error) {
      if (error instanceof ApiProblem && error.code === 'lease') this.lease = 'lost'
      this.changed()
      throw error
    }
    await this.open()
  }

  /** Where the student is, for coming back to after a reload. */
  goes(item: string | null): void {
    this.here = item
    this.keepHere()
  }

  /** @throws ApiProblem where what is left is closed and the server cannot be told */
  async goTo(next: number): Promise<void> {
    const before = this.page
    this.page = next
    this.keepHere()
    if (!this.opened || this.opened.sheet.movement === 'free') return
    await this.flush()
    try {
      const reply = await this.remote.moveOn({ lease: this.opened.lease, page: next })
      this.arrange(reply.putOff)
      this.page = Math.min(Math.max(next, reply.page), this.opened.sheet.pages - 1)
    } catch (error) {
      // Something here has to be answered first.
      if (error instanceof ApiProblem && error.code === 'required') this.page = before
      throw error
    } finally {
      this.keepHere()
    }
  }

  /** The page turns to something else: what is pending is sent once more, and no timer goes on. */
  leave(): void {
    this.stopTimers()
    void this.flush().finally(() => {
      this.stopTimers()
    })
    this.left = true
  }
}

const beginning = 'thistle:sitting:'
const nameOf = (attempt: string) => beginning + attempt

/** Sittings of which this browser remembers something. @returns ids of attempts */
export function rememberedSittings(memory: Memory): string[] {
  return memory.names(beginning).map((name) => name.slice(beginning.length))
}

/**
 * Sends what this browser wrote in a sitting that it has no more open: what is not too late is kept, the rest is set
 * aside. Forgotten when the server has said so.
 * @throws ApiProblem when the server takes nothing just now, or the sitting is not of who is signed in
 */
export async function sendLeftOver(attempt: string, save: SittingRemote['save'], memory: Memory): Promise<void> {
  const remembered = memory.read(nameOf(attempt)) as Remembered | null
  if (!remembered) return
  for (const { lease, answers } of leftOver(remembered)) await save({ lease, answers })
  // Another tab may be writing in it: what it has added since is its own to send.
  if (JSON.stringify(memory.read(nameOf(attempt))) === JSON.stringify(remembered)) memory.forget(nameOf(attempt))
}

/** All that a browser remembers and the server may not have, by lease, each no more than one request may carry. */
function leftOver({ lease, aside = [], pending }: Remembered): Aside[] {
  const answers = Object.entries(pending).map(([item, entry]) => saveOf(item, entry))
  const parts: Aside[] = []
  for (let i = 0; i < answers.length; i += mostLeftOver)
    parts.push({ lease, answers: answers.slice(i, i + mostLeftOver) })
  return [...aside, ...parts]
}

const saveOf = (item: string, { response, flagged, seq }: Entry): AnswerSave => ({
  item,
  response: response as Record<string, unknown> | null,
  flagged,
  seq,
})
