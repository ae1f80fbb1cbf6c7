import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { questionRow, sampleContent, sampleRules } from '../../tests/fixtures/core'
import { offline, overTheWire, pageWith, refused } from '../testing/page'
import { applyEdit, type Edit, type Quiz } from '../../core/quiz'
import type { KeptEdit } from '../../server/domain/quizzes/edits'

const first: Quiz = { content: sampleContent([questionRow('q1'), questionRow('q2')]), rules: sampleRules() }
const section = first.content.sections[0]!.id
const points = (value: number, row = 'r-q1'): Edit => ({ do: 'setRow', row, values: { points: value } })

/** A server that replays edits as the real one does. */
class Server {
  quiz = first
  edits: KeptEdit[] = []
  isUp = true
  refuse: string | null = null
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
  answer = (
    path: string,
    { method, body, query }: { method?: string; body?: unknown; query?: Record<string, unknown> },
  ) => {
    if (!this.isUp) throw offline()
    if (path === 'quizzes/quiz')
      return {
        id: 'quiz',
        revision: this.edits.length,
        quiz: this.quiz,
        checks: [],
        questions: [],
        stimuli: [],
        now: '2030-01-01T00:00:00.000Z',
      }
    if (path === 'quizzes/quiz/checks') return []
    if (path === 'quizzes/quiz/edits' && method === 'GET')
      return this.edits.filter((each) => each.revision > Number(query!.since))
    const { on, token, edit } = body as { on: number; token: string; edit: Edit }
    if (this.refuse) {
      const sentence = this.refuse
      this.refuse = null
      throw refused(409, sentence)
    }
    if (!this.edits.some((each) => each.token === token)) this.keep(token, edit, 'Maren Holt')
    return { revision: this.edits.length, since: this.edits.filter((each) => each.revision > on) }
  }
}

let server: Server
let store: ReturnType<typeof import('./quiz').useQuiz>
const settled = () => vi.advanceTimersByTimeAsync(10)
const pointsOf = (quiz: Quiz | null, row = 'r-q1') =>
  (quiz!.content.sections[0]!.rows.find((each) => each.id === row) as { points: number } | undefined)?.points
beforeEach(async () => {
  vi.useFakeTimers()
  server = new Server()
  await pageWith(server.answer)
  store = (await import('./quiz')).useQuiz()
  await store.load('quiz')
})
afterEach(() => {
  vi.useRealTimers()
})

describe('a quiz under a teacher’s hands', () => {
  it('shows an edit at once, and the server has it soon after', async () => {
    store.make(points(3))
    expect([pointsOf(store.quiz), pointsOf(server.quiz), store.waiting.length]).toEqual([3, 1, 1])
    await settled()
    expect([pointsOf(server.quiz), store.waiting.length, store.undos.length]).toEqual([3, 0, 1])
    expect(store.savedAt).not.toBeNull()
  })
  it('keeps edits in their order while the server is away, and sends them when it is back', async () => {
    server.isUp = false
    for (const value of [2, 3, 4]) store.make(points(value))
    await settled()
    expect([store.offline, store.waiting.length, pointsOf(store.quiz)]).toEqual([true, 3, 4])
    server.isUp = true
    await vi.advanceTimersByTimeAsync(3100)
    expect([store.offline, store.waiting.length, pointsOf(server.quiz)]).toEqual([false, 0, 4])
    expect(server.edits.map((each) => each.edit)).toEqual([2, 3, 4].map((value) => points(value)))
  })
  it('an edit that reached the server although its reply was lost is made once', async () => {
    const real = server.answer
    let lost = true
    vi.stubGlobal('$fetch', async (path: string, options: object) => {
      const reply = real(path.replace('/api/', ''), overTheWire({ method: 'GET', ...options }))
      if (lost && (options as { method?: string }).method === 'POST') {
        lost = false
        throw offline()
      }
      return overTheWire(reply)
    })
    store.make({ do: 'addRows', section, after: null, rows: [questionRow('q3')] })
    await vi.advanceTimersByTimeAsync(3200)
    expect(server.edits).toHaveLength(1)
    expect(store.quiz!.content.sections[0]!.rows.map((row) => row.id)).toEqual(['r-q3', 'r-q1', 'r-q2'])
  })
  it('says a refusal and leaves nothing to take back', async () => {
    server.refuse = 'Idris Quayle has changed the same thing in the meantime.'
    store.make(points(5))
    await settled()
    expect(store.problem).toMatch(/Idris Quayle/)
    expect([pointsOf(store.quiz), store.undos.length, store.waiting.length]).toEqual([1, 0, 0])
  })
  it('undo takes back one’s own edit and leaves a colleague’s; redo makes it again', async () => {
    store.make(points(5))
    await settled()
    server.keep('other.1', points(9, 'r-q2'), 'Idris Quayle')
    await store.poll()
    expect([pointsOf(store.quiz, 'r-q2'), store.others]).toEqual([9, ['Idris Quayle']])
    store.undo()
    await settled()
    expect([pointsOf(server.quiz), pointsOf(server.quiz, 'r-q2')]).toEqual([1, 9])
    store.redo()
    await settled()
    expect([pointsOf(server.quiz), store.undos.length, store.redos.length]).toEqual([5, 1, 0])
  })
  it('a new edit ends what could be made again', async () => {
    store.make(points(5))
    store.undo()
    store.make(points(6))
    await settled()
    expect([store.redos.length, pointsOf(server.quiz)]).toEqual([0, 6])
  })
  it('an edit that does not fit is said and not sent', async () => {
    store.make({ do: 'removeRows', rows: ['gone'] })
    await settled()
    expect([store.problem, server.edits.length]).toEqual(['That row is no longer in the quiz.', 0])
  })
})
