import { applyEdit, EditConflict, onto, type Edit } from '~~/core/quiz/edits'
import { changed } from '~~/core/quiz/edits/touches'
import type { Check, Held, Quiz } from '~~/core/quiz'
import { questionsUsed } from '~~/core/quiz/walk'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import type { CheckReply } from '~~/server/domain/quizzes/checks'
import type { EditReply } from '~~/server/domain/quizzes/edits'
import type { KeptEdit } from '~~/server/domain/quizzes/history'
import type { HeldReply } from '~~/server/domain/quizzes/held'
import type { QuizView } from '~~/server/domain/quizzes/view'
import { ApiProblem, sentenceOf } from '../client/api'
import type { Memory, Timers } from './device'

/** The server as a replica asks it. @throws ApiProblem */
export interface QuizRemote {
  load(): Promise<QuizView>
  edit(body: { on: number; token: string; edit: Edit }): Promise<EditReply>
  changes(since: number): Promise<EditReply>
  /** @param stop gives up what is asked: something newer is on its way */
  /** @param held stamp of what is known here to be held */
  checks(held: string, stop?: AbortSignal): Promise<CheckReply>
}

type As = 'new' | 'undo' | 'redo'
interface Waiting {
  token: string
  edit: Edit
  as: As
}
/** An edit of one's own that can be taken back, with what takes it back. */
interface Step {
  token: string
  inverse: Edit
}

/** An edit that met a colleague's: theirs stands until the teacher says otherwise. */
export interface Asked {
  sentence: string
  edit: Edit
}

const retryAfter = 3000
const restsFor = 500
const mostSteps = 200
const mostHeard = 300

/**
 * A quiz under the hands of a teacher: what the server has, and on top of it the edits that are on their way. Edits that
 * the server has not acknowledged are remembered under the quiz, so that another page or a reload sends them; their
 * tokens make that the same save.
 */
export class QuizReplica {
  view: QuizView | null = null
  /** The quiz as the page shows it: kept, with what is on its way applied. */
  quiz: Quiz | null = null
  waiting: readonly Waiting[] = []
  undos: readonly Step[] = []
  redos: readonly Step[] = []
  checks: readonly Check[] = []
  facts: ReadonlyMap<string, Hit> = new Map()
  /** What pools with a condition hold, by their rows. */
  held: Held = new Map()
  /** Names of stimuli by id. */
  stimuli: ReadonlyMap<string, string> = new Map()
  problem = ''
  asked: Asked | null = null
  offline = false
  savedAt: number | null = null
  /** Names of colleagues who have been at work on it since it was loaded. */
  others: readonly string[] = []

  private kept: { quiz: Quiz; revision: number } | null = null
  private heard: readonly KeptEdit[] = []
  /** The newest revision that anybody has told of. */
  private newest = 0
  private count = 0
  private sending = false
  private stamp = 0
  private stopRetry: (() => void) | null = null
  private stopAsking: (() => void) | null = null
  private stopChecking: (() => void) | null = null
  private checking: AbortController | null = null
  private left = false
  /** Stands for what is held as it is known here. */
  private heldStamp = ''

  /**
   * @param page names this page in the tokens of its edits: letters and digits
   * @param memoryKey under which unsent edits are remembered: of this quiz and this person
   * @param tell called after every change, for the page to draw
   */
  constructor(
    private readonly remote: QuizRemote,
    private readonly memory: Memory,
    private readonly timers: Timers,
    private readonly page: string,
    private readonly memoryKey: string,
    private readonly tell: () => void,
  ) {}

  /** Loads the quiz, or loads it anew; edits on their way stay on their way. @throws ApiProblem */
  async load(): Promise<void> {
    const loaded = await this.remote.load()
    const first = this.view === null
    this.view = loaded
    if (!this.kept || loaded.revision >= this.kept.revision)
      this.kept = { quiz: loaded.quiz, revision: loaded.revision }
    this.checks = loaded.checks
    this.takeHeld(loaded.held)
    this.stimuli = new Map([...this.stimuli, ...loaded.stimuli.map(({ id, name }) => [id, name] as const)])
    this.facts = new Map([...this.facts, ...loaded.questions.map((hit) => [hit.id, hit] as const)])
    if (first) this.takeUp()
    this.redraw()
    if (this.waiting.length) void this.send()
  }

  /** Edits that an earlier page of this browser could not send. */
  private takeUp(): void {
    const known = new Set(this.waiting.map((each) => each.token))
    const found = this.memory
      .names(this.memoryKey)
      .map((name) => this.memory.read(name) as (Waiting & { order: number }) | null)
      .filter((each) => each !== null && !known.has(each.token))
      .sort((a, b) => a!.order - b!.order)
    this.waiting = [...found.map((each) => ({ token: each!.token, edit: each!.edit, as: each!.as })), ...this.waiting]
  }

  private remember(each: Waiting): void {
    this.memory.write(`${this.memoryKey}:${each.token}`, {
      ...each,
      order: this.timers.now() * 1000 + (this.count % 1000),
    })
  }

  /** Works out what the page shows. An edit that does not fit what others did is left out: the server will say so. */
  private redraw(): void {
    let result = this.kept?.quiz ?? null
    for (const { edit } of this.waiting) {
      try {
        if (result) result = applyEdit(result, edit).quiz
      } catch {
        /* said by the server */
      }
    }
    this.quiz = result
    this.tell()
  }

  private takeHeld({ stamp, pools, questions }: HeldReply): void {
    this.heldStamp = stamp
    this.held = new Map(pools.map((pool) => [pool.row, pool.questions]))
    this.facts = new Map([...this.facts, ...questions.map((hit) => [hit.id, hit] as const)])
  }

  /** Hits that a page has shown, so that a row can show its question at once. */
  learn(hits: readonly Hit[], stimuli: readonly (readonly [id: string, name: string])[] = []): void {
    this.facts = new Map([...this.facts, ...hits.map((hit) => [hit.id, hit] as const)])
    this.stimuli = new Map([...this.stimuli, ...stimuli])
    this.tell()
  }

  /** Makes an edit: at once on the page, then on the server. A sentence is shown when it cannot be made. */
  make(edit: Edit, as: As = 'new'): void {
    if (!this.quiz) return
    let applied: ReturnType<typeof applyEdit>
    try {
      applied = applyEdit(this.quiz, edit)
    } catch (error) {
      this.problem = this.refusal(error, as)
      this.tell()
      return
    }
    this.problem = ''
    if (as === 'new') this.asked = null
    const waiting = { token: `${this.page}.${(this.count++).toString(36)}`, edit, as }
    const step = { token: waiting.token, inverse: applied.inverse }
    this.waiting = [...this.waiting, waiting]
    this.remember(waiting)
    if (as === 'undo') this.redos = [...this.redos, step]
    else this.undos = [...this.undos, step].slice(-mostSteps)
    if (as === 'new') this.redos = []
    this.quiz = applied.quiz
    this.tell()
    void this.send()
  }

  /** Why an edit cannot be made, with who is the reason where that is known. */
  private refusal(error: unknown, as: As): string {
    if (!(error instanceof EditConflict)) return sentenceOf(error)
    const last = this.heard.findLast(
      (each) => !each.token.startsWith(`${this.page}.`) && changed(each.edit, error.paths),
    )
    const who = last?.byName ?? 'Somebody'
    const done = error.gone ? 'has taken this out' : 'has changed this'
    return as === 'new' ? sentenceOf(error) : `${asWords[as]}: ${who} ${done} since.`
  }

  private async send(): Promise<void> {
    if (this.sending || !this.kept) return
    this.sending = true
    this.stopRetry?.()
    this.stopRetry = null
    while (this.waiting[0]) {
      const next = this.waiting[0]
      try {
        const reply = await this.remote.edit({ on: this.kept.revision, token: next.token, edit: next.edit })
        this.arrived(next)
        this.take(reply)
        this.savedAt = this.timers.now()
        this.offline = false
        this.redraw()
      } catch (error) {
        if (!(error instanceof ApiProblem) || error.isPassing) {
          this.offline = true
          if (!this.left) this.stopRetry = this.timers.after(retryAfter, () => void this.send())
          this.tell()
          break
        }
        await this.refused(next, error)
      }
    }
    this.sending = false
    // What a colleague did while an edit was on its way may have come after its reply.
    if (this.kept.revision < this.newest && !this.offline) await this.catchUp()
    if (!this.waiting.length && !this.left) this.recheckSoon()
  }

  private arrived(each: Waiting): void {
    this.waiting = this.waiting.filter((other) => other.token !== each.token)
    this.memory.forget(`${this.memoryKey}:${each.token}`)
  }

  /** What was refused was never done, so there is nothing to take back. */
  private async refused(each: Waiting, error: ApiProblem): Promise<void> {
    this.arrived(each)
    this.undos = this.undos.filter((step) => step.token !== each.token)
    this.redos = this.redos.filter((step) => step.token !== each.token)
    await this.catchUp()
    this.redraw()
    const anew = each.as === 'new' && error.code === 'edit-conflict' && this.quiz ? onto(this.quiz, each.edit) : null
    if (anew) this.asked = { sentence: error.message, edit: anew }
    else this.problem = each.as === 'new' ? error.message : `${asWords[each.as]}: ${error.message}`
    this.tell()
  }

  /** The teacher's answer to what was asked: theirs stands, or one's own is put in after all. */
  answer(keep: 'theirs' | 'mine'): void {
    const asked = this.asked
    this.asked = null
    const anew = asked && keep === 'mine' && this.quiz ? onto(this.quiz, asked.edit) : null
    if (anew) this.make(anew)
    else this.tell()
  }

  /** Takes edits that the server has kept, of others and one's own, in their order. */
  private take(reply: EditReply): void {
    if (!this.kept) return
    if (reply.quiz) {
      if (reply.revision > this.kept.revision) this.kept = { quiz: reply.quiz, revision: reply.revision }
      return
    }
    let { quiz, revision } = this.kept
    const fresh = (reply.since ?? []).filter((each) => each.revision > revision)
    for (const each of fresh) {
      quiz = applyEdit(quiz, each.edit).quiz
      revision = each.revision
    }
    this.kept = { quiz, revision }
    this.heard = [...this.heard, ...fresh].slice(-mostHeard)
    const colleagues = fresh.filter((each) => !each.token.startsWith(`${this.page}.`)).map((each) => each.byName)
    this.others = [...new Set([...this.others, ...colleagues])]
  }

  /** Told that there is a revision: what it did is fetched, unless it is one's own. */
  async told(revision: number): Promise<void> {
    this.newest = Math.max(this.newest, revision)
    if (this.sending || !this.kept || this.kept.revision >= this.newest) return
    await this.catchUp()
    // What could not be fetched is asked for again.
    this.stopAsking?.()
    this.stopAsking =
      this.kept.revision < this.newest && !this.left
        ? this.timers.after(retryAfter, () => void this.told(revision))
        : null
  }

  /** What others did meanwhile. */
  async poll(): Promise<void> {
    if (!this.sending) await this.catchUp()
  }

  private async catchUp(): Promise<void> {
    if (!this.kept) return
    try {
      const before = this.kept.revision
      this.take(await this.remote.changes(before))
      if (this.kept.revision === before) return
      this.redraw()
      // A colleague may have added questions that this page has not seen.
      if (this.quiz && questionsUsed(this.quiz.content).some((id) => !this.facts.has(id)))
        this.learn((await this.remote.load()).questions)
      this.recheckSoon()
    } catch {
      /* The next poll tries again. */
    }
  }

  /**
   * Checks look at the whole quiz: they wait until the hand rests. Newer ones end older ones that are still under way; an
   * edit does not, since a thread that is ended has to be started anew.
   */
  private recheckSoon(): void {
    this.stopChecking?.()
    this.stopChecking = this.left ? null : this.timers.after(restsFor, () => void this.recheck())
  }

  async recheck(): Promise<void> {
    const mine = ++this.stamp
    this.checking?.abort()
    const asked = (this.checking = new AbortController())
    try {
      const { checks, held } = await this.remote.checks(this.heldStamp, asked.signal)
      if (mine !== this.stamp) return
      this.checks = checks
      if (held) this.takeHeld(held)
      this.tell()
    } catch {
      /* Checks come again with the next edit; opening runs them on the server anyway. */
    }
  }

  undo(): void {
    const last = this.undos.at(-1)
    if (!last) return
    this.undos = this.undos.slice(0, -1)
    this.make(last.inverse, 'undo')
  }

  redo(): void {
    const last = this.redos.at(-1)
    if (!last) return
    this.redos = this.redos.slice(0, -1)
    this.make(last.inverse, 'redo')
  }

  closeProblem(words = ''): void {
    this.problem = words
    this.tell()
  }

  /** The page turns to something else: no timer goes on. What is unsent is remembered, and sent when it is opened again. */
  leave(): void {
    this.left = true
    this.checking?.abort()
    this.stopChecking?.()
    this.stopAsking?.()
    this.stopRetry?.()
    this.stopRetry = null
  }
}

const asWords = { new: '', undo: 'Not taken back', redo: 'Not made again' }
