import { beforeEach, describe, expect, it, vi, afterEach } from 'vitest'
import { groupRow, questionRow, sampleContent, sampleRules } from '../../tests/fixtures/core'
import { addRows, applyEdit, EditConflict, removeRow, setAt, type Edit, type Quiz } from '../../core/quiz'
import type { EditReply } from '../../server/domain/quizzes/edits'
import type { KeptEdit } from '../../server/domain/quizzes/history'
import type { CheckReply } from '~~/server/domain/quizzes/checks'
import type { QuizView } from '../../server/domain/quizzes/view'
import { ApiProblem } from '../client/api'
import { realTimers, type Memory } from './device'
import { QuizReplica } from './quiz-replica'

const first: Quiz = { content: sampleContent([questionRow('q1'), questionRow('q2')]), rules: sampleRules() }
const section = first.content.sections[0]!.id
const offline = () => new ApiProblem(0, 'offline', 'The server cannot be reached. Check your connection.')

/** A memory that all pages of one browser share. */
function sharedMemory(): Memory & { kept: Map<string, string> } {
  const kept = new Map<string, string>()
  return {
    kept,
    read: (name) => JSON.parse(kept.get(name) ?? 'null') as unknown,
    write: (name, value) => kept.set(name, JSON.stringify(value)),
    forget: (name) => kept.delete(name),
    names: (beginning) => [...kept.keys()].filter((name) => name.startsWith(beginning)),
  }
}

/** A server that replays edits as the real one does. */
class Server {
  quiz = first
  edits: KeptEdit[] = []
  isUp = true
  /** The next reply to an edit is lost on its way back. */
  losesReply = false
  /** Answers with the whole quiz, as it does to a page that is far behind. */
  isFarAhead = false
  asked: string[] = []
  constructor(readonly title = 'Tides') {
    this.quiz = { ...first, content: { ...first.content, title } }
  }
  keep(token: string, edit: Edit, byName: string) {
    this.quiz = applyEdit(this.quiz, edit).quiz
    this.edits.push({
      revision: this.edits.length + 1,
      token,
      edit,
      by: byName,
      byName,
      at: '2030-01-01T00:00:00.000Z',
    })
  }
  private reply(on: number): EditReply {
    return this.isFarAhead
      ? { revision: this.edits.length, since: null, quiz: this.quiz }
      : { revision: this.edits.length, since: this.edits.filter((each) => each.revision > on), quiz: null }
  }
  private async wire<T>(what: string, answer: () => T): Promise<T> {
    this.asked.push(what)
    await Promise.resolve()
    if (!this.isUp) throw offline()
    return JSON.parse(JSON.stringify(answer())) as T
  }
  remote = {
    load: () =>
      this.wire(
        'load',
        () =>
          ({
            id: 'quiz',
            revision: this.edits.length,
            quiz: this.quiz,
            checks: [],
            questions: [],
            held: { stamp: '', pools: [], questions: [] },
            stimuli: [],
            now: '2030-01-01T00:00:00.000Z',
          }) as unknown as QuizView,
      ),
    changes: (since: number) => this.wire('changes', () => this.reply(since)),
    checks: (_held: string, _stop?: AbortSignal) => this.wire('checks', (): CheckReply => ({ checks: [], held: null })),
    edit: ({ on, token, edit }: { on: number; token: string; edit: Edit }) =>
      this.wire('edit', () => {
        if (!this.edits.some((each) => each.token === token)) {
          try {
            this.keep(token, edit, 'Maren Holt')
          } catch (error) {
            if (error instanceof EditConflict)
              throw new ApiProblem(409, 'edit-conflict', 'Idris Quayle has changed the same thing in the meantime.')
            throw error
          }
        }
        if (this.losesReply) {
          this.losesReply = false
          throw offline()
        }
        return this.reply(on)
      }),
  }
}

let server: Server
let memory: ReturnType<typeof sharedMemory>
let replica: QuizReplica
let told = 0
const settled = (wait = 10) => vi.advanceTimersByTimeAsync(wait)
const pointsOf = (quiz: Quiz | null, row = 'r-q1') =>
  (quiz!.content.sections[0]!.rows.find((each) => each.id === row) as { points: number } | undefined)?.points
const points = (value: number, row = 'r-q1') => setAt(replica.quiz!, ['rows', row, 'points'], value)
async function pageOf(page: string, on = server) {
  const made = new QuizReplica(on.remote, memory, realTimers, page, 'quiz:p1:q1', () => told++)
  await made.load()
  return made
}
beforeEach(async () => {
  vi.useFakeTimers()
  server = new Server()
  memory = sharedMemory()
  told = 0
  replica = await pageOf('page1')
})
afterEach(() => {
  vi.useRealTimers()
})

describe('a quiz under a teacher’s hands', () => {
  it('shows an edit at once, and the server has it soon after', async () => {
    replica.make(points(3))
    expect([pointsOf(replica.quiz), pointsOf(server.quiz), replica.waiting.length]).toEqual([3, 1, 1])
    await settled()
    expect([pointsOf(server.quiz), replica.waiting.length, replica.undos.length]).toEqual([3, 0, 1])
    expect(replica.savedAt).not.toBeNull()
    expect([told > 1, memory.kept.size]).toEqual([true, 0])
  })
  it('keeps edits in their order while the server is away, and sends them when it is back', async () => {
    server.isUp = false
    for (const value of [2, 3, 4]) replica.make(points(value))
    await settled()
    expect([replica.offline, replica.waiting.length, pointsOf(replica.quiz)]).toEqual([true, 3, 4])
    server.isUp = true
    await settled(3100)
    expect([replica.offline, replica.waiting.length, pointsOf(server.quiz), server.edits.length]).toEqual([
      false,
      0,
      4,
      3,
    ])
  })
  it('an edit that reached the server although its reply was lost is made once', async () => {
    server.losesReply = true
    replica.make(addRows(section, null, [questionRow('q3')]))
    await settled(3200)
    expect(server.edits).toHaveLength(1)
    expect(replica.quiz!.content.sections[0]!.rows.map((row) => row.id)).toEqual(['r-q3', 'r-q1', 'r-q2'])
  })
  it('a new edit ends what could be made again', async () => {
    replica.make(points(5))
    replica.undo()
    replica.make(points(6))
    await settled()
    expect([replica.redos.length, pointsOf(server.quiz)]).toEqual([0, 6])
  })
  it('an edit that does not fit is said and not sent', async () => {
    const edit = removeRow(replica.quiz!, 'r-q1')
    replica.make(edit)
    replica.make(edit)
    await settled()
    expect([replica.problem, server.edits.length]).toEqual(['That row is no longer in the quiz.', 1])
    replica.closeProblem()
    expect(replica.problem).toBe('')
  })
  it('a page that is far behind takes the whole quiz', async () => {
    for (let i = 0; i < 5; i++)
      server.keep(`other.${i}`, setAt(server.quiz, ['rules', 'limit'], 50 + i), 'Idris Quayle')
    server.isFarAhead = true
    replica.make(points(4))
    await settled()
    expect([pointsOf(replica.quiz), replica.quiz!.rules.limit, replica.waiting.length]).toEqual([4, 54, 0])
  })
})

describe('a colleague in the same quiz', () => {
  const theirs = (edit: Edit) => {
    server.keep(`other.${server.edits.length}`, edit, 'Idris Quayle')
  }
  it('undo takes back one’s own edit and leaves theirs; redo makes it again', async () => {
    replica.make(points(5))
    await settled()
    theirs(setAt(server.quiz, ['rows', 'r-q2', 'points'], 9))
    await replica.poll()
    expect([pointsOf(replica.quiz, 'r-q2'), replica.others]).toEqual([9, ['Idris Quayle']])
    replica.undo()
    await settled()
    expect([pointsOf(server.quiz), pointsOf(server.quiz, 'r-q2')]).toEqual([1, 9])
    replica.redo()
    await settled()
    expect([pointsOf(server.quiz), replica.undos.length, replica.redos.length]).toEqual([5, 1, 0])
  })
  it('undo of what they have changed since is refused, with who; theirs stands', async () => {
    replica.make(setAt(replica.quiz!, ['rules', 'limit'], 60))
    await settled()
    theirs(setAt(server.quiz, ['rules', 'limit'], 90))
    for (let i = 0; i < 30; i++) theirs(setAt(server.quiz, ['rules', 'grace'], 2 + (i % 2)))
    await replica.poll()
    replica.undo()
    await settled()
    expect(replica.problem).toBe('Not taken back: Idris Quayle has changed this since.')
    expect([server.quiz.rules.limit, replica.quiz!.rules.limit]).toEqual([90, 90])
  })
  it('the same before the page has heard of it: the server refuses, with who', async () => {
    replica.make(setAt(replica.quiz!, ['rules', 'limit'], 60))
    await settled()
    theirs(setAt(server.quiz, ['rules', 'limit'], 90))
    replica.undo()
    await settled()
    expect(replica.problem).toBe('Not taken back: Idris Quayle has changed the same thing in the meantime.')
    expect([server.quiz.rules.limit, replica.quiz!.rules.limit, replica.asked]).toEqual([90, 90, null])
  })
  it.each(['theirs', 'mine'] as const)('the later one is asked, and may leave %s', async (keep) => {
    theirs(setAt(server.quiz, ['rules', 'limit'], 90))
    replica.make(setAt(replica.quiz!, ['rules', 'limit'], 60))
    await settled()
    expect(replica.asked?.sentence).toMatch(/Idris Quayle has changed the same thing/)
    expect([replica.quiz!.rules.limit, replica.undos.length, replica.waiting.length]).toEqual([90, 0, 0])
    replica.answer(keep)
    await settled()
    expect([server.quiz.rules.limit, replica.asked]).toEqual([keep === 'mine' ? 60 : 90, null])
  })
  it('what they have taken out is said, and nothing is asked', async () => {
    theirs(removeRow(server.quiz, 'r-q1'))
    replica.make(points(3))
    await settled()
    expect([replica.asked, replica.problem !== '', replica.undos.length]).toEqual([null, true, 0])
  })
  it('questions that they put in are learnt', async () => {
    theirs(addRows(section, null, [groupRow('g', ['q7'])]))
    await replica.poll()
    await settled()
    expect(server.asked.filter((each) => each === 'load')).toHaveLength(2)
  })
})

describe('changing pages and reloads', () => {
  it('unsent edits survive a reload, are sent once, and are shown meanwhile', async () => {
    server.isUp = false
    replica.make(points(7))
    replica.make(setAt(replica.quiz!, ['rules', 'limit'], 70))
    await settled()
    replica.leave()
    server.isUp = true
    replica = await pageOf('page2')
    expect([pointsOf(replica.quiz), replica.quiz!.rules.limit]).toEqual([7, 70])
    await settled()
    expect([pointsOf(server.quiz), server.quiz.rules.limit, server.edits.length, memory.kept.size]).toEqual([
      7, 70, 2, 0,
    ])
  })
  it('an edit that had reached the server before the reload is not made twice', async () => {
    server.losesReply = true
    replica.make(addRows(section, null, [questionRow('q3')]))
    await settled()
    replica.leave()
    replica = await pageOf('page2')
    await settled()
    expect([server.edits.length, replica.waiting.length, replica.quiz!.content.sections[0]!.rows.length]).toEqual([
      1, 0, 3,
    ])
  })
  it('leaving stops the timers: nothing is asked any more', async () => {
    server.isUp = false
    replica.make(points(7))
    await settled()
    replica.leave()
    const asked = server.asked.length
    await settled(60_000)
    expect([server.asked.length, vi.getTimerCount()]).toEqual([asked, 0])
  })
  it('a reply that comes late lands on the quiz that asked, never on the one opened since', async () => {
    replica.make(points(9))
    const other = new Server('Weather')
    const second = await pageOf('page2', other)
    await settled()
    expect([replica.quiz!.content.title, pointsOf(replica.quiz)]).toEqual(['Tides', 9])
    expect([second.quiz!.content.title, pointsOf(second.quiz), other.edits.length]).toEqual(['Weather', 1, 0])
  })
  it('loading what stands beside the edits keeps them and their undo', async () => {
    replica.make(points(5))
    await settled()
    await replica.load()
    expect([pointsOf(replica.quiz), replica.undos.length]).toEqual([5, 1])
    replica.undo()
    await settled()
    expect(pointsOf(server.quiz)).toBe(1)
  })
})

describe('what the page is told of', () => {
  it('is fetched at once; one’s own is not fetched again', async () => {
    server.keep('other.1', setAt(server.quiz, ['rows', 'r-q2', 'points'], 4), 'Idris Quayle')
    await replica.told(1)
    expect(pointsOf(replica.quiz, 'r-q2')).toBe(4)
    const before = server.asked.length
    await replica.told(1)
    expect(server.asked).toHaveLength(before)
  })
  it('is asked for again when the line was down, and not once the page has left', async () => {
    server.keep('other.1', setAt(server.quiz, ['rows', 'r-q2', 'points'], 4), 'Idris Quayle')
    server.isUp = false
    await replica.told(1)
    expect(pointsOf(replica.quiz, 'r-q2')).toBe(1)
    server.isUp = true
    await settled(3100)
    expect(pointsOf(replica.quiz, 'r-q2')).toBe(4)
    server.keep('other.2', setAt(server.quiz, ['rows', 'r-q2', 'points'], 6), 'Idris Quayle')
    server.isUp = false
    await replica.told(2)
    replica.leave()
    expect(vi.getTimerCount()).toBe(0)
  })
  it('is not missed when it comes while an edit is on its way', async () => {
    const { edit } = server.remote
    // The colleague's edit is kept just after the reply to one's own was made, and told of before it arrives.
    server.remote.edit = async (body) => {
      const reply = await edit(body)
      server.keep('other.2', setAt(server.quiz, ['rows', 'r-q2', 'points'], 5), 'Idris Quayle')
      await replica.told(2)
      return reply
    }
    replica.make(points(3))
    await settled()
    expect(pointsOf(replica.quiz)).toBe(3)
    expect(pointsOf(replica.quiz, 'r-q2')).toBe(5)
  })
})

describe('checks', () => {
  it('come once the hand rests, and newer ones end those under way', async () => {
    const signals: (AbortSignal | undefined)[] = []
    const { checks } = server.remote
    server.remote.checks = (held, stop) => {
      signals.push(stop)
      return checks(held)
    }
    for (const value of [2, 3, 4]) {
      replica.make(points(value))
      await settled(100)
    }
    expect(signals).toHaveLength(0)
    await settled(600)
    expect(signals).toHaveLength(1)
    replica.make(points(5))
    expect(signals[0]!.aborted).toBe(false)
    await settled(600)
    expect(signals).toHaveLength(2)
    expect(signals.map((signal) => signal!.aborted)).toEqual([true, false])
  })
})

describe('what conditions find', () => {
  it('comes with the checks, is not sent again while it is the same, and fills the pools of the page', async () => {
    const asked: string[] = []
    const replies = [
      { stamp: 'one', pools: [{ row: 'p', questions: ['a', 'b'] }], questions: [{ id: 'a' }, { id: 'b' }] as never[] },
      null,
      { stamp: '', pools: [], questions: [] },
    ]
    server.remote.checks = (held) => {
      asked.push(held)
      return Promise.resolve({ checks: [], held: (replies[asked.length - 1] ?? null) as CheckReply['held'] })
    }
    const heard: unknown[] = []
    for (let i = 0; i < 3; i++) {
      await replica.recheck()
      heard.push([...replica.held])
    }
    expect(asked).toEqual(['', 'one', 'one'])
    expect(heard).toEqual([[['p', ['a', 'b']]], [['p', ['a', 'b']]], []])
    expect(replica.facts.has('b')).toBe(true)
  })
})
