import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { offline, pageWith } from '../testing/page'
import type { useQuestionSearch as Search } from './question-search'

/** A bank of 150 questions, answered a page at a time; what was asked is remembered. */
let asked: Record<string, unknown>[]
let isUp: boolean
let search: ReturnType<typeof Search>
const ids = Array.from({ length: 150 }, (_, i) => `q${i}`)
const answer = (path: string, { query = {} }: { query?: Record<string, unknown> }) => {
  if (!isUp) throw offline()
  if (path === 'objectives') return [{ id: 'o1', parent: null, code: '1', title: 'Tides', essential: false, needs: [] }]
  if (path === 'folders') return [{ id: 'f1', parent: null, name: 'Mine', questions: 3 }]
  if (path === 'words')
    return {
      revision: 1,
      words: {
        schemes: [{ id: 's', name: 'Depth', levels: [{ id: 'v1', name: 'recall' }] }],
        fields: [],
        grades: ['Year 9'],
      },
    }
  asked.push(query)
  const found = query.words === 'none' ? [] : ids
  const from = Number(query.from)
  return {
    total: found.length,
    cap: 1000,
    sampled: false,
    hits: found.slice(from, from + 60).map((id) => ({ id })),
    counts: {
      kind: { choice: 100 },
      objective: { o1: 4 },
      difficulty: { 2: 7 },
      tag: { spring: 2 },
      folder: { f1: 3 },
      level: { 's:v1': 5 },
      grade: { 'Year 9': 1, 'Year 10': 2 },
    },
  }
}
const settled = () => vi.advanceTimersByTimeAsync(200)
beforeEach(async () => {
  vi.useFakeTimers()
  asked = []
  isUp = true
  await pageWith(answer)
  search = (await import('./question-search')).useQuestionSearch('usable')
  await settled()
})
afterEach(() => {
  vi.useRealTimers()
})
const last = () => asked.at(-1)!

describe('searching the bank as one types', () => {
  it('begins with all that can be used, and says how many', () => {
    expect(last()).toMatchObject({ words: '', state: 'usable', from: 0 })
    expect([search.totalWords.value, search.hits.value.length, search.hasMore.value, search.isNarrowed.value]).toEqual([
      '150 questions',
      60,
      true,
      false,
    ])
  })
  it('waits until the typing rests, and asks once', async () => {
    for (const words of ['t', 'ti', 'tid', 'tide']) {
      search.words.value = words
      await vi.advanceTimersByTimeAsync(20)
    }
    const before = asked.length
    await settled()
    expect([asked.length - before, last().words, search.isNarrowed.value]).toEqual([1, 'tide', true])
  })
  it('filters are asked for as lists, toggled on and off', async () => {
    search.toggle({ name: 'kind', value: 'choice' })
    search.toggle({ name: 'kind', value: 'number' })
    search.toggle({ name: 'level', value: 's:v1' })
    await settled()
    expect(last()).toMatchObject({ kind: 'choice,number', level: 's:v1', objective: '' })
    search.toggle({ name: 'kind', value: 'choice' })
    await settled()
    expect(last()).toMatchObject({ kind: 'number' })
    search.clear()
    await settled()
    expect(last()).toMatchObject({ kind: '', level: '', words: '' })
    expect(search.isNarrowed.value).toBe(false)
  })
  it('every filter has its name in words and its count; grades that only questions know are there too', () => {
    const labelled = Object.fromEntries(
      search.labelled.value.map((each) => [`${each.name} ${each.value}`, [each.label, each.count]]),
    )
    expect(labelled).toMatchObject({
      'objective o1': ['1 Tides', 4],
      'folder f1': ['Mine', 3],
      'level s:v1': ['Depth: recall', 5],
      'grade Year 9': ['Year 9', 1],
      'grade Year 10': ['Year 10', 2],
      'tag spring': ['spring', 2],
      'kind choice': ['Choice', 100],
    })
  })
  it('pages are added below, until all are there', async () => {
    await search.more()
    expect([search.hits.value.length, last().from, search.hasMore.value]).toEqual([120, 60, true])
    await search.more()
    expect([search.hits.value.length, search.hasMore.value]).toEqual([150, false])
    expect(search.hits.value.map((hit) => hit.id)).toEqual(ids)
  })
  it('a saved search is taken up whole, and what it does not say goes back to usual', async () => {
    search.toggle({ name: 'tag', value: 'spring' })
    search.narrowing.doubted = 'yes'
    search.take({ words: 'ebb', kind: ['choice'], state: 'retired' })
    await settled()
    expect(last()).toMatchObject({ words: 'ebb', kind: 'choice', tag: '', state: 'retired', doubted: '' })
  })
  it('a lost connection is told, and what was found stays', async () => {
    isUp = false
    search.words.value = 'tide'
    await settled()
    expect(search.problem.value).toMatch(/cannot be reached/)
    expect(search.hits.value).toHaveLength(60)
    isUp = true
    search.words.value = 'none'
    await settled()
    expect([search.problem.value, search.totalWords.value, search.hasMore.value]).toEqual(['', '0 questions', false])
  })
})
