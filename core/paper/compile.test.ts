import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  groupRow,
  names,
  poolRow,
  questionRow,
  sampleContent,
  sampleEdition,
  sampleQuestion,
} from '../../tests/fixtures/core'
import type { Row } from '../quiz'
import { compilePaper } from './compile'
import { CannotDraw, drawPools, unsatisfiable } from './draw'
import { seededRandom } from '../kit/random'

const random = (name: string) => seededRandom('cd'.repeat(32), [name])

/** A quiz with fixed rows, places kept and pools that may overlap. */
const quizzes = fc.record({
  fixed: fc.integer({ min: 0, max: 4 }),
  pools: fc.array(
    fc.record({
      from: fc.integer({ min: 0, max: 10 }),
      size: fc.integer({ min: 1, max: 8 }),
      draw: fc.integer({ min: 1, max: 4 }),
    }),
    { maxLength: 4 },
  ),
  shuffled: fc.boolean(),
  student: fc.string({ minLength: 1, maxLength: 8 }),
})

describe('compilePaper', () => {
  it('never repeats a question, keeps the promised number per pool and fixed rows in place', () => {
    fc.assert(
      fc.property(quizzes, ({ fixed, pools, shuffled, student }) => {
        const bank = names('q', 20)
        const rows: Row[] = [
          ...bank.slice(0, fixed).map((question, i) => questionRow(question, { fixed: i % 2 === 0 })),
          ...pools.map((pool, i) => poolRow(`pool${i}`, bank.slice(pool.from, pool.from + pool.size), pool.draw)),
        ]
        const content = sampleContent(rows)
        content.sections[0]!.order = shuffled ? 'shuffled' : 'kept'
        const edition = sampleEdition(content)
        const demands = pools.map((pool, i) => ({
          id: `pool${i}`,
          holds: bank.slice(pool.from, pool.from + pool.size),
          draw: pool.draw,
        }))
        const impossible = unsatisfiable(demands, new Set(bank.slice(0, fixed))).length > 0
        if (impossible) {
          expect(() => compilePaper(edition, student, 1, [])).toThrow(CannotDraw)
          return
        }
        const paper = compilePaper(edition, student, 1, [])
        expect(new Set(paper.items.map((item) => item.question)).size).toBe(paper.items.length)
        pools.forEach((pool, i) => {
          const drawn = paper.items.filter((item) => item.row === `pool${i}`)
          expect(drawn.length).toBe(pool.draw)
          expect(drawn.every((item) => demands[i]!.holds.includes(item.question))).toBe(true)
        })
        rows.forEach((row, place) => {
          if (row.type === 'question' && (row.fixed || !shuffled))
            expect(paper.items[place]!.question).toBe(row.question)
        })
        expect(compilePaper(edition, student, 1, [])).toEqual(paper)
      }),
      { numRuns: 300 },
    )
  })

  const pool = sampleEdition(sampleContent([poolRow('p', names('q', 12), 4)]))
  it('a further attempt prefers what was not seen, then what was seen longest ago', () => {
    const papers = [compilePaper(pool, 'x', 1, [])]
    for (let attempt = 2; attempt <= 5; attempt++) papers.push(compilePaper(pool, 'x', attempt, papers))
    const asked = papers.map((paper) => new Set(paper.items.map((item) => item.question)))
    expect(new Set([...asked[0]!, ...asked[1]!, ...asked[2]!]).size).toBe(12)
    expect(asked[3]).toEqual(asked[0])
    expect(asked[4]).toEqual(asked[1])
  })
  it('repeats the paper where the rules say so', () => {
    const first = compilePaper(pool, 'x', 1, [])
    expect(compilePaper(pool, 'x', 2, [first], { draw: 'same' })).toEqual({ ...first, attempt: 2 })
  })
  it('gives unlike papers to students and attempts, and ids that mean nothing elsewhere', () => {
    const ids = ['a', 'b', 'c'].map((student) =>
      compilePaper(pool, student, 1, [])
        .items.map((item) => item.id)
        .join(),
    )
    expect(new Set(ids).size).toBe(3)
  })
  it('keeps fixed options and the order of a question that asks for it', () => {
    const fixedLast = sampleQuestion('choice')
    const options = (fixedLast.body as { options: { id: string; fixed: boolean }[] }).options
    options[3]!.fixed = true
    const edition = sampleEdition(sampleContent([questionRow('a'), questionRow('b')]), {
      a: fixedLast,
      b: sampleQuestion('trueFalse'),
    })
    const papers = names('s', 40).map((student) => compilePaper(edition, student, 1, []))
    expect(papers.every((paper) => paper.items[0]!.options[3]!.option === 'd')).toBe(true)
    expect(
      papers.every((paper) => paper.items[1]!.options.map((option) => option.option).join() === 'true,false'),
    ).toBe(true)
    expect(
      new Set(papers.map((paper) => paper.items[0]!.options.map((option) => option.option).join())).size,
    ).toBeGreaterThan(3)
  })
  it.each([
    [{ by: 'all' }, '0,0,0,0,0', 1],
    [{ by: 'count', count: 2 }, '0,0,1,1,2', 3],
    [{ by: 'section' }, '0,0,0,0,0', 1],
  ] as const)('pages by %j', (pages, expected, count) => {
    const paper = compilePaper(
      sampleEdition(
        sampleContent(
          names('q', 5).map((id) => questionRow(id)),
          { pages },
        ),
      ),
      'x',
      1,
      [],
    )
    expect([paper.items.map((item) => item.page).join(), paper.pages]).toEqual([expected, count])
  })
})

describe('stimulus groups', () => {
  const bank = names('q', 12)
  it('stay together as one, wherever the section is shuffled to, in the order their author gave', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 6 }),
        fc.integer({ min: 1, max: 4 }),
        fc.boolean(),
        (student, draw, mixed) => {
          const group = groupRow('g', bank.slice(0, 4), { draw, order: mixed ? 'shuffled' : 'kept' })
          const content = sampleContent([
            questionRow('q9'),
            group,
            poolRow('p', bank.slice(4, 8), 2),
            questionRow('q10'),
          ])
          content.sections[0]!.order = 'shuffled'
          const placed = compilePaper(sampleEdition(content), student, 1, []).items.map((item) => item.question)
          const own = placed.filter((question) => bank.slice(0, 4).includes(question))
          const first = placed.indexOf(own[0]!)
          expect(own).toHaveLength(draw)
          expect(placed.slice(first, first + draw)).toEqual(own)
          if (!mixed) expect(own).toEqual([...own].sort())
          expect(new Set(placed).size).toBe(draw + 4)
        },
      ),
      { numRuns: 200 },
    )
  })
  it('take every place in a shuffled section, and every inner order where that is asked for', () => {
    const content = sampleContent([
      questionRow('q9'),
      questionRow('q10'),
      groupRow('g', bank.slice(0, 3), { order: 'shuffled' }),
    ])
    content.sections[0]!.order = 'shuffled'
    const edition = sampleEdition(content)
    const papers = names('s', 200).map((student) =>
      compilePaper(edition, student, 1, []).items.map((item) => item.question),
    )
    expect(
      new Set(papers.map((placed) => placed.findIndex((question) => bank.slice(0, 3).includes(question)))),
    ).toEqual(new Set([0, 1, 2]))
    expect(
      new Set(papers.map((placed) => placed.filter((question) => bank.slice(0, 3).includes(question)).join())).size,
    ).toBe(6)
  })
  it('that give all their questions claim them: a pool never draws one of them', () => {
    const content = sampleContent([poolRow('p', bank.slice(0, 5), 2), groupRow('g', bank.slice(0, 3))])
    for (const student of names('s', 30))
      expect(
        compilePaper(sampleEdition(content), student, 1, [])
          .items.filter((item) => item.row === 'p')
          .map((item) => item.question)
          .sort(),
      ).toEqual(['q4', 'q5'])
  })
})

describe('drawPools with overlap', () => {
  it('leaves later pools what they need', () => {
    const demands = [
      { id: 'wide', holds: names('q', 6), draw: 3 },
      { id: 'narrow', holds: ['q1', 'q2', 'q3'], draw: 3 },
    ]
    for (const name of names('n', 200)) {
      const drawn = drawPools(demands, new Set(), null, random(name))
      expect(new Set(drawn.get('wide'))).toEqual(new Set(['q4', 'q5', 'q6']))
    }
  })
})
