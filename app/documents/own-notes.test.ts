import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiProblem } from '../client/api'
import { realTimers } from './device'
import { OwnNotes } from './own-notes'

let [sent, isUp, kept] = [[] as [string, string][], true, new Map<string, string>()]
const memory = {
  read: (name: string) => JSON.parse(kept.get(name) ?? 'null') as unknown,
  write: (name: string, value: unknown) => kept.set(name, JSON.stringify(value)),
  forget: (name: string) => kept.delete(name),
  names: () => [...kept.keys()],
}
const made = (known = {}) =>
  new OwnNotes(
    'a',
    known,
    async (item, { note }) => {
      await Promise.resolve()
      if (!isUp) throw new ApiProblem(0, 'offline', 'Away.')
      if (note === 'over') throw new ApiProblem(409, 'ended', 'Over.')
      sent.push([item, note])
    },
    memory,
    realTimers,
    () => {},
  )
beforeEach(() => {
  vi.useFakeTimers()
  ;[sent, isUp, kept] = [[], true, new Map()]
})
afterEach(() => {
  vi.useRealTimers()
})

describe('own notes', () => {
  it('are sent once writing pauses, the last as it stands', async () => {
    const notes = made({ i1: { note: 'old', marks: [] } })
    expect(notes.of('i1').note).toBe('old')
    for (const note of ['E', 'Eb', 'Ebb']) notes.change('i1', { note })
    await vi.advanceTimersByTimeAsync(1000)
    expect([sent, kept.size]).toEqual([[['i1', 'Ebb']], 0])
  })
  it('outlast a lost connection and a reload; what the server never takes does not stop the others', async () => {
    isUp = false
    const notes = made()
    notes.change('i1', { note: 'over' })
    notes.change('i2', { note: 'kept', marks: [[0, 4]] })
    await vi.advanceTimersByTimeAsync(20_000)
    expect(sent).toEqual([])
    vi.clearAllTimers()
    isUp = true
    const again = made({ i2: { note: 'older', marks: [] } })
    expect(again.of('i2')).toEqual({ note: 'kept', marks: [[0, 4]] })
    await vi.advanceTimersByTimeAsync(10)
    expect([sent, kept.size]).toEqual([[['i2', 'kept']], 0])
  })
  it('what is written while one is on its way is sent as well', async () => {
    const notes = made()
    notes.change('i1', { note: 'one' })
    await vi.advanceTimersByTimeAsync(800)
    notes.change('i1', { note: 'two' })
    await vi.advanceTimersByTimeAsync(2000)
    expect(sent.at(-1)).toEqual(['i1', 'two'])
    expect(kept.size).toBe(0)
  })
})
