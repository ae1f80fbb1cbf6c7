import { beforeEach, describe, expect, it, vi } from 'vitest'
import { pageWith } from '../testing/page'
import { languageName } from '../utils/language'

describe('objectives of a stretch of work', () => {
  beforeEach(() => pageWith(() => []))
  const use = async () => (await import('./recent-objectives')).useRecentObjectives()
  it('the last used come first, each once, six at most; the next page knows them', async () => {
    const { recent, note } = await use()
    expect(recent.value).toEqual([])
    for (const objectives of [['a', 'b'], ['c'], ['a'], ['d', 'e'], ['f', 'g']]) note(objectives)
    expect(recent.value).toEqual(['f', 'g', 'd', 'e', 'a', 'c'])
    expect((await use()).recent.value).toEqual(['f', 'g', 'd', 'e', 'a', 'c'])
  })
  it('a store that refuses, or holds something else, does no harm', async () => {
    vi.stubGlobal('sessionStorage', {
      getItem: () => '{broken',
      setItem: () => {
        throw new Error('full')
      },
    })
    const { recent, note } = await use()
    expect(recent.value).toEqual([])
    note(['a'])
    expect(recent.value).toEqual(['a'])
  })
})

describe('names of languages', () => {
  it.each([
    ['nl', 'Dutch'],
    ['fr-CA', 'Canadian French'],
    ['zz', 'zz'],
    ['not a code', 'not a code'],
  ])('%s is %s', (code, name) => expect(languageName(code)).toBe(name))
})
