import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { offline, pageWith, refused } from '../testing/page'
import type { useImport as Import } from './import'

type Fate = 'new' | 'changed' | 'same' | 'broken' | 'near'
const item = (fate: Fate, i: number) => ({
  place: `question ${i + 1}`,
  outsideId: null,
  fate,
  problem: fate === 'broken' ? 'Cannot be read.' : null,
  notes: [],
  folder: [],
  kind: 'choice',
  title: `Question ${i + 1}`,
  key: 'a',
  existing: null,
  stimulus: null,
  proof: null,
  lost: [],
})

/** A server that takes one item each time it is asked how far it is. */
class Server {
  state = 'staged'
  progress = 0
  total = 0
  taken: unknown = null
  isUp = true
  refuse: string | null = null
  answer = (path: string, { method, body }: { method?: string; body?: unknown }) => {
    if (!this.isUp) throw offline()
    if (this.refuse) {
      const sentence = this.refuse
      this.refuse = null
      throw refused(422, sentence)
    }
    if (path === 'imports' && method === 'POST') return this.batch()
    if (path === 'imports/b1/take') {
      this.taken = body
      this.state = 'running'
      this.total = (body as { items: number[] }).items.length
      return { total: this.total }
    }
    if (path === 'imports/b1/stop') {
      this.state = 'staged'
      this.progress = 0
      return { ok: true }
    }
    if (path === 'imports/b1/progress') {
      if (this.state === 'running' && ++this.progress === this.total) this.state = 'done'
      return { state: this.state, progress: this.progress, total: this.total }
    }
    if (method === 'DELETE') return { removed: 2, kept: 1, quizzes: 1 }
    return { ...this.batch(), quizzes: [{ id: 'quiz1', title: 'A test' }] }
  }
  batch = () => ({
    id: 'b1',
    name: 'a.zip',
    state: this.state,
    progress: this.progress,
    total: this.total,
    items: (['new', 'changed', 'same', 'broken', 'near'] as const).map(item),
    tests: [{ title: 'A test', questions: 2, notes: [] }],
    quizzes: [],
  })
}

let server: Server
let said: string[]
let flow: ReturnType<typeof Import>
beforeEach(async () => {
  vi.useFakeTimers()
  server = new Server()
  said = (await pageWith(server.answer)).said
  flow = (await import('./import')).useImport()
})
afterEach(() => {
  vi.useRealTimers()
})

describe('bringing questions in', () => {
  it('chooses at first what is new or changed, never what is broken, the same or alike; and the tests', async () => {
    await flow.stage(new Blob(['x']), 'a.zip')
    expect([[...flow.chosen.value], [...flow.quizzes.value], flow.busy.value]).toEqual([[0, 1], [0], false])
  })
  it('takes what is chosen, shows how far it is, and then the quizzes that were made', async () => {
    await flow.stage(new Blob(['x']), 'a.zip')
    await flow.take()
    expect(server.taken).toEqual({ items: [0, 1], tests: [0] })
    expect(flow.batch.value).toMatchObject({ state: 'running', progress: 0, total: 2 })
    await vi.advanceTimersByTimeAsync(350)
    expect(flow.batch.value).toMatchObject({ state: 'running', progress: 1 })
    await vi.advanceTimersByTimeAsync(1000)
    expect(flow.batch.value).toMatchObject({ state: 'done', quizzes: [{ id: 'quiz1', title: 'A test' }] })
    expect(said).toContain('2 questions are in the bank.')
  })
  it('can be stopped: nothing was added, and it can be begun again', async () => {
    await flow.stage(new Blob(['x']), 'a.zip')
    await flow.take()
    await flow.stop()
    await vi.advanceTimersByTimeAsync(700)
    expect(flow.batch.value!.state).toBe('staged')
    expect(said).toContain('Stopped: nothing was added.')
    await flow.take()
    expect(flow.batch.value!.state).toBe('running')
  })
  it('a connection that is lost while it runs is asked again', async () => {
    await flow.stage(new Blob(['x']), 'a.zip')
    await flow.take()
    server.isUp = false
    await vi.advanceTimersByTimeAsync(1000)
    expect(flow.batch.value!.state).toBe('running')
    server.isUp = true
    await vi.advanceTimersByTimeAsync(1500)
    expect(flow.batch.value!.state).toBe('done')
  })
  it('taking back says what stays, and why', async () => {
    await flow.stage(new Blob(['x']), 'a.zip')
    await flow.undo()
    expect(flow.undone.value).toBe(
      'Taken back: 2. 1 stay, because a quiz holds them or somebody has changed them. A quiz stays that somebody has worked on.',
    )
    expect(flow.batch.value!.state).toBe('undone')
  })
  it('what the server refuses is told in its words, and the last file stays to look at', async () => {
    await flow.stage(new Blob(['x']), 'a.zip')
    server.refuse = 'This is not a zip archive that can be read.'
    await flow.stage(new Blob(['y']), 'b.zip')
    expect([flow.problem.value, flow.batch.value?.name, flow.busy.value]).toEqual([
      'This is not a zip archive that can be read.',
      'a.zip',
      false,
    ])
  })
})
