import { describe, expect, it } from 'vitest'
import { changes, withAct, type Act } from './acts'

const at = (minute: number) => `2030-05-14T19:${String(minute).padStart(2, '0')}:00.000Z`
const save = (minute: number, lease: number, ...answers: [item: string, seq: number][]): Act => ({
  at: at(minute),
  method: 'POST',
  path: 'sittings/a/answers',
  query: {},
  body: { lease, answers: answers.map(([item, seq]) => ({ item, seq, response: { text: `${item}${seq}` } })) },
})
const look = (minute: number): Act => ({ at: at(minute), method: 'GET', path: 'reviews/a', query: {} })
const items = (act: Act) =>
  (act.body as { answers: { item: string; seq: number }[] }).answers.map(({ item, seq }) => [item, seq])

describe('the acts of a rehearsal', () => {
  it('send answers that follow each other as one, the last of each question', () => {
    const acts = withAct(withAct([], save(1, 1, ['x', 1], ['y', 2])), save(2, 1, ['x', 3]))
    expect(acts).toHaveLength(1)
    expect(acts[0]!.at).toBe(at(2))
    expect(items(acts[0]!)).toEqual([
      ['x', 3],
      ['y', 2],
    ])
  })
  it('keep apart what was sent by another lease, was partly refused, or does not fit into one request', () => {
    const first = withAct([], save(1, 1, ['x', 1]))
    expect(withAct(first, save(2, 2, ['x', 2]))).toHaveLength(2)
    expect(withAct(first, save(2, 1, ['x', 2]), false)).toHaveLength(2)
    const many = Array.from({ length: 100 }, (_, i): [string, number] => [`q${i}`, i + 2])
    expect(withAct(first, save(2, 1, ...many))).toHaveLength(2)
  })
  it('look at a review once as long as nothing else was done', () => {
    const acts = withAct(withAct([], look(1)), look(2))
    expect(acts).toEqual([look(1)])
    expect(withAct(withAct(acts, save(3, 1, ['x', 1])), look(4))).toHaveLength(3)
  })
  it('begin anew where something is done earlier than what was done', () => {
    const acts = withAct(withAct([], save(5, 1, ['x', 1])), look(6))
    expect(withAct(acts, save(2, 1, ['y', 1])).map((act) => act.at)).toEqual([at(2)])
  })
  it('hold what changes something or is noted', () => {
    expect(changes({ method: 'GET', path: 'my/quizzes' })).toBe(false)
    expect(changes({ method: 'GET', path: 'reviews/a' })).toBe(true)
    expect(changes({ method: 'DELETE', path: 'sittings/a/break' })).toBe(true)
  })
})
