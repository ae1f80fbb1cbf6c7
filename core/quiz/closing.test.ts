import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bandAt, bandsFor, closingFaults, readBoundary, unknownPlaceholders, wordsFor, type Band } from './closing'

const band = (from: number): Band => ({ id: `b${from}`, from, html: `<p>${from}</p>` })

describe('boundaries as people type them', () => {
  it.each([
    ['85', 85],
    ['85 %', 85],
    ['85%', 85],
    ['85.0', 85],
    ['85,5', 85.5],
    [' 0 ', 0],
    ['100', 100],
    ['100.01', null],
    ['101', null],
    ['-1', null],
    ['85.125', null],
    ['eighty', null],
    ['', null],
    ['8 5', null],
    ['1e1', null],
  ])('%s', (typed, percent) => expect(readBoundary(typed)).toBe(percent))
})

describe('bands', () => {
  it('each share belongs to the band with the highest boundary that it reaches', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 100 }), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 0, max: 100 }),
        (boundaries, percent) => {
          const found = bandAt(boundaries.map(band), percent)
          // The oracle looks down from the share, a percent at a time.
          let at = percent
          while (at >= 0 && !boundaries.includes(at)) at--
          expect(found?.from ?? -1).toBe(at)
        },
      ),
    )
  })
  it('come from the highest down, each with where it ends', () => {
    expect(bandsFor([band(0), band(85), band(50)]).map(({ from, below }) => [from, below])).toEqual([
      [85, null],
      [50, 85],
      [0, 50],
    ])
  })
  it.each([
    ['none', [], null, null],
    ['whole', [0, 50], null, null],
    ['a gap below', [20, 50], 20, null],
    ['two at one boundary', [0, 50, 50], null, 50],
    ['both', [50, 10, 50], 10, 50],
  ])('%s', (_name, from, gap, overlap) => {
    expect(closingFaults(from.map(band))).toEqual({ gap, overlap })
  })
})

describe('closing words', () => {
  const values = { name: 'Nell <b>Ashdown</b>', quiz: 'Tides & streams', score: '75 %', grade: null, date: '14 May' }
  it.each([
    ['<p>{name}, {score}</p>', '<p>Nell &lt;b&gt;Ashdown&lt;/b&gt;, 75 %</p>'],
    ['<p>Grade: {grade}</p>', '<p>Grade: not shown yet</p>'],
    ['<p>{quiz} on {date} {other} {toString}</p>', '<p>Tides &amp; streams on 14 May {other} {toString}</p>'],
    [
      '<p><a href="https://example.org/{name}">x</a> {na<em>me}</em></p>',
      '<p><a href="https://example.org/{name}">x</a> {na<em>me}</em></p>',
    ],
    ['a &lt; b {score} &amp; c', 'a &lt; b 75 % &amp; c'],
    ['', ''],
  ])('%s', (source, read) => expect(wordsFor(source, values)).toBe(read))
  it('names in brackets that mean nothing are told', () => {
    expect(unknownPlaceholders('<p title="{odd}">{name} {points} {points} {Grade} {x1}</p>')).toEqual(['points'])
  })
})
