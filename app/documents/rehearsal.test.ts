import { describe, expect, it } from 'vitest'
import { plus } from '../../core/kit/time'
import type { Memory, Timers } from './device'
import { Rehearsal, type Remote } from './rehearsal'
import type { FramedPage } from './stage'

const eight = '2030-05-14T08:00:00.000Z'
const seconds = 1000

/** A rehearsal on a clock of the test's, with a server that says what it was asked. */
function stage(answer: (asked: Parameters<Remote>[0]) => Partial<Awaited<ReturnType<Remote>>> = () => ({})) {
  let now = 0
  const asked: Parameters<Remote>[0][] = []
  const went: string[] = []
  const kept = new Map<string, unknown>()
  const memory: Memory = {
    read: (name) => structuredClone(kept.get(name) ?? null),
    write: (name, value) => void kept.set(name, structuredClone(value)),
    forget: (name) => void kept.delete(name),
    names: () => [...kept.keys()],
  }
  const timers: Timers = { after: () => () => {}, now: () => now }
  const page: FramedPage = {
    turn: () => went.push('turn'),
    go: (path) => went.push(path),
    path: () => '/sit/a1',
    paper: () => 'a1',
    reconnect: () => went.push('reconnect'),
  }
  const make = () => {
    const play: Rehearsal = new Rehearsal(
      { student: 'p' },
      eight,
      async (body) => {
        asked.push(structuredClone(body))
        return { status: 200, reply: {}, acts: [], ...answer(body) }
      },
      memory,
      'kept',
      timers,
      () => {},
      () => {},
    )
    play.door = '/my/q'
    play.enter(page)
    return play
  }
  return { play: make(), make, asked, went, pass: (milliseconds: number) => (now += milliseconds) }
}
const start = { method: 'POST' as const, body: { device: 'd' } }

describe('a rehearsal in the browser', () => {
  it('goes on in time from the instant that was chosen, and sends what was done before', async () => {
    const { play, asked, pass } = stage()
    pass(5 * seconds)
    expect(play.at).toBe(plus(eight, 5 * seconds))
    await play.ask('my/quizzes/q/start', start)
    pass(10 * seconds)
    await play.ask('my/quizzes', {})
    expect(asked.map(({ rehearsal }) => [rehearsal.at, rehearsal.acts.length])).toEqual([
      [plus(eight, 5 * seconds), 0],
      [plus(eight, 15 * seconds), 1],
    ])
    expect(play.acts[0]).toMatchObject({ at: plus(eight, 5 * seconds), path: 'my/quizzes/q/start' })
  })

  it('answers one request after the other: the second stands on what the first did', async () => {
    const { play, asked } = stage()
    await Promise.all([play.ask('my/quizzes/q/start', start), play.ask('sittings/a1/open', start)])
    expect(asked[1]!.rehearsal.acts.map(({ path }) => path)).toEqual(['my/quizzes/q/start'])
  })

  it('keeps no act that was refused, and none while the connection is lost', async () => {
    const { play, asked, went } = stage(() => ({ status: 409, reply: { detail: 'no' } }))
    expect(await play.ask('my/quizzes/q/start', start)).toEqual({ status: 409, reply: { detail: 'no' } })
    play.lose()
    expect(await play.ask('my/quizzes', {})).toBeNull()
    expect([play.acts, asked.length]).toEqual([[], 1])
    play.moveTo(plus(eight, 600 * seconds), false)
    play.reconnect()
    expect(went).toEqual(['reconnect'])
  })

  it('says that the server is away as the page would find it', async () => {
    const { play } = stage(() => {
      throw new Error('away')
    })
    expect(await play.ask('my/quizzes', {})).toBeNull()
  })

  it('looks again when the clock moves on, and begins at the door when it moves back', () => {
    const { play, went } = stage()
    play.moveTo(plus(eight, 60 * seconds))
    play.moveTo(eight)
    expect(went).toEqual(['turn', '/my/q'])
  })

  it('is taken up again by the same tab with all that was done, and begun anew for somebody else', async () => {
    const { play, make } = stage()
    await play.ask('my/quizzes/q/start', start)
    play.storage.setItem('thistle:tab', 'd')
    play.keepPlace()
    const again = make()
    expect(again.takeUp()).toBe(true)
    expect([again.acts.length, again.place, again.storage.getItem('thistle:tab')]).toEqual([1, '/sit/a1', 'd'])
    again.begin({ who: { student: 'other' } })
    expect([again.acts, again.place, again.storage.getItem('thistle:tab')]).toEqual([[], '/my/q', null])
  })

  it('takes over what was filled in', async () => {
    const filled = { at: eight, method: 'POST' as const, path: 'sittings/a1/answers', query: {}, body: {} }
    const { play, went } = stage((body) => (body.fill ? { acts: [filled] } : {}))
    await play.fillIn('a1', 'right')
    expect(play.acts).toEqual([filled])
    expect(went).toEqual(['turn'])
  })
})
