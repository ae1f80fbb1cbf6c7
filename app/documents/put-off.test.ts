import { describe, expect, it } from 'vitest'
import type { Sheet } from '../../core/paper/schema'
import { pagesBySection, withPutOff } from './put-off'

const question = (id: string, page: number) => ({ type: 'question', id, page })
const sheet = (movement: Sheet['movement']) =>
  ({
    movement,
    pages: 4,
    sections: [
      { entries: [question('a', 0), question('b', 1)], waits: null },
      { entries: [question('c', 2)], waits: null },
      { entries: [], waits: { page: 3, questions: 2, points: 2 } },
    ],
  }) as unknown as Sheet

describe('what is put off', () => {
  it('stands on a page behind the last; without any the sheet is as it came', () => {
    const off = withPutOff(sheet('forward'), ['b', 'a'])
    expect(off.pages).toBe(5)
    expect(off.sections[0]!.entries.map(({ page }) => page)).toEqual([4, 4])
    expect(off.sections[1]!.entries.map(({ page }) => page)).toEqual([2])
    const plain = sheet('forward')
    expect(withPutOff(plain, [])).toBe(plain)
  })
})

describe('the pages of each section', () => {
  it('are those of what it asks, or of its door', () => {
    expect(pagesBySection(sheet('section'))).toEqual([[0, 1], [2], [3]])
  })
})
