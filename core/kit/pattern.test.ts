import { describe, expect, it } from 'vitest'
import { matchesPattern, patternFault } from './pattern'

describe('patterns', () => {
  it.each([
    ['drift(ing)?', 'drifting', true, true],
    ['drift(ing)?', 'adrift', true, false],
    ['Drift', 'drift', true, false],
    ['Drift', 'drift', false, true],
    ['\\d{3}°?', '085°', true, true],
    ['', '', true, true],
    ['', 'x', true, false],
    ['ebb|flood', 'flood tide', true, false],
  ])('%s over the whole of “%s”, case %s: %s', (pattern, text, caseMatters, expected) =>
    expect(matchesPattern(pattern, text, caseMatters)).toBe(expected),
  )
  it.each(['(', '[a-', 'a{2,1}', '(?=x)y', '(a)\\1', '*'])(
    '“%s” is refused in a sentence, and meets nothing',
    (pattern) => {
      expect(patternFault(pattern)).toMatch(/cannot be read\. Check its brackets/)
      expect(matchesPattern(pattern, 'x', true)).toBe(false)
    },
  )
  it('what takes others for ever is over at once', () => {
    const began = performance.now()
    expect(matchesPattern('(a+)+b', `${'a'.repeat(5000)}c`, true)).toBe(false)
    expect(matchesPattern('(x|xx)*y', 'x'.repeat(5000), false)).toBe(false)
    // Backtracking would need longer than the world has stood; the bound is for slow machines.
    expect(performance.now() - began).toBeLessThan(3000)
  })
})
