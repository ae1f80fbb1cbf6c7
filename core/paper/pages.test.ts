import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { groupRow, questionRow, sampleContent, sampleEdition } from '../../tests/fixtures/core'
import type { Pages, Row } from '../quiz'
import { newSection } from '../quiz'
import { compilePaper } from './compile'
import { pageNumbers, type PagedSection } from './pages'
import { sealPaper } from './seal'

const pages = fc.oneof(
  fc.constant<Pages>({ by: 'all' }),
  fc.constant<Pages>({ by: 'section' }),
  fc.integer({ min: 1, max: 4 }).map((count): Pages => ({ by: 'count', count })),
  fc.constant<Pages>({ by: 'breaks' }),
)
const sections = fc.array(
  fc.record({
    size: fc.integer({ min: 0, max: 7 }),
    pages,
    breaks: fc.array(fc.integer({ min: 0, max: 8 }), { maxLength: 4 }),
  }),
  { minLength: 1, maxLength: 5 },
)

/** Goes through the questions one by one, as somebody would who turns the pages: the oracle. */
function turned(list: readonly PagedSection[]): number[][] {
  let page = -1
  let before: PagedSection | null = null
  return list.map((section) => {
    const found: number[] = []
    for (let i = 0; i < section.size; i++) {
      const first = i === 0
      const joins = first && section.pages.by === 'all' && before?.pages.by === 'all'
      const parts =
        (section.pages.by === 'count' && i % section.pages.count === 0) ||
        (section.pages.by === 'breaks' && section.breaks.includes(i))
      if (first ? !joins : parts) page++
      found.push(page)
    }
    if (section.size) before = section
    return found
  })
}

describe('pageNumbers', () => {
  it('numbers pages as somebody would who goes through question by question', () => {
    let parted = 0
    fc.assert(
      fc.property(sections, (list) => {
        const { count, page } = pageNumbers(list)
        const expected = turned(list)
        expect(list.map(({ size }, i) => Array.from({ length: size }, (_, j) => page(i, j)))).toEqual(expected)
        expect(count).toBe(Math.max(0, ...expected.flat()) + 1)
        if (list.some((each) => each.pages.by === 'breaks' && each.breaks.some((b) => b > 0 && b < each.size))) parted++
      }),
      { numRuns: 500 },
    )
    expect(parted).toBeGreaterThan(50)
  })
})

const aBreak = (id: string): Row => ({ type: 'break', id })
const text = (id: string): Row => ({ type: 'text', id, html: `<p>${id}</p>` })
const edition = (rows: Row[], over: object = {}) => sampleEdition(sampleContent(rows, over))
const layout = (rows: Row[], over: object = {}) => {
  const made = edition(rows, over)
  return sealPaper(compilePaper(made, 'p1', 1, []), made).sections[0]!.entries.map((entry) => [
    entry.type === 'text' ? entry.html : 'q',
    entry.page,
  ])
}

describe('pages of a paper', () => {
  const byHand = { pages: { by: 'breaks' } as const }
  it('begin where breaks stand, and a text stays on the side of the break where it was put', () => {
    const rows = [questionRow('a'), text('before'), aBreak('b1'), text('behind'), questionRow('c')]
    expect(layout(rows, byHand)).toEqual([
      ['q', 0],
      ['<p>before</p>', 0],
      ['<p>behind</p>', 1],
      ['q', 1],
    ])
  })
  it('breaks first, last and doubled part nothing; where pages are otherwise, breaks are not asked', () => {
    const rows = [aBreak('b0'), questionRow('a'), aBreak('b1'), aBreak('b2'), questionRow('c'), aBreak('b3')]
    expect(layout(rows, byHand).map(([, page]) => page)).toEqual([0, 1])
    expect(layout(rows).map(([, page]) => page)).toEqual([0, 0])
  })
  it('a section may say otherwise than the quiz', () => {
    const content = sampleContent([])
    content.sections = [
      newSection({ id: 's1', title: 'One', rows: [questionRow('a'), questionRow('b')] }),
      newSection({
        id: 's2',
        title: 'Two',
        pages: { by: 'count', count: 1 },
        rows: [questionRow('c'), questionRow('d')],
      }),
      newSection({ id: 's3', title: 'Three', rows: [questionRow('e')] }),
      newSection({ id: 's4', title: 'Four', rows: [questionRow('f')] }),
    ]
    content.pages = { by: 'all' }
    const made = sampleEdition(content)
    const paper = compilePaper(made, 'p1', 1, [])
    expect(paper.items.map((item) => [item.question, item.page])).toEqual([
      ['a', 0],
      ['b', 0],
      ['c', 1],
      ['d', 2],
      ['e', 3],
      ['f', 3],
    ])
    expect(paper.pages).toBe(4)
  })
  it('a break never cuts a stimulus group in two, wherever shuffling puts it', () => {
    const rows = [questionRow('a'), aBreak('b'), groupRow('g', ['c', 'd', 'e']), questionRow('f')]
    const content = sampleContent(rows, byHand)
    content.sections[0]!.order = 'shuffled'
    const made = sampleEdition(content)
    let moved = 0
    for (let student = 0; student < 60; student++) {
      const { items } = compilePaper(made, `student ${student}`, 1, [])
      const group = items.filter((item) => item.row === 'g')
      expect(new Set(group.map((item) => item.page)).size).toBe(1)
      if (items[0]!.row === 'g') moved++
    }
    expect(moved).toBeGreaterThan(5)
  })
})

describe('the order of options', () => {
  const orders = (options: 'quiz' | 'shuffled' | 'kept', shuffleOptions: boolean) => {
    const made = edition([questionRow('a', { options })], { shuffleOptions })
    return new Set(
      Array.from({ length: 30 }, (_, i) =>
        compilePaper(made, `student ${i}`, 1, [])
          .items[0]!.options.map(({ option }) => option)
          .join(''),
      ),
    )
  }
  it('is that of the quiz unless the row says otherwise', () => {
    expect(orders('quiz', false)).toEqual(new Set(['abcd']))
    expect(orders('kept', true)).toEqual(new Set(['abcd']))
    expect(orders('quiz', true).size).toBeGreaterThan(5)
    expect(orders('shuffled', false).size).toBeGreaterThan(5)
  })
})
