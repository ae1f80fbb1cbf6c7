import { describe, expect, it } from 'vitest'
import { lowestPage } from './turning'

describe('the lowest page that can be turned to', () => {
  const sections = [[0, 1], [2], [3, 4]]
  it.each([
    ['free', 3, 0],
    ['forward', 2, 2],
    ['section', 0, 0],
    ['section', 1, 0],
    ['section', 2, 2],
    ['section', 4, 3],
    // Of no section: what is put off, behind the last.
    ['section', 5, 5],
  ] as const)('%s, from page %i: %i', (movement, page, lowest) =>
    expect(lowestPage(movement, sections, page)).toBe(lowest),
  )
})
