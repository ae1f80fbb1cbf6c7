import { describe, expect, it } from 'vitest'
import { at, questionRow, sampleContent, sampleEdition, sampleRules, sampleStudent } from '../../tests/fixtures/core'
import { compilePaper, sealPaper } from '../paper'
import { newSection } from '../quiz'
import { scheduleFor } from './schedule'
import { neverShorterSection, sectionLimits, sectionMinutes, toldOfSections } from './sections'
import { noAccommodation } from '../quiz'

const scheduleWith = (factor: number, extraMinutes: number, grace = 1) =>
  scheduleFor(
    sampleRules({ grace }),
    sampleStudent({
      accommodations: [{ ...noAccommodation, factor, extraMinutes, stretchWindow: false }],
    }),
  )

describe('the clock of a section', () => {
  it.each([
    [10, 1, 0, 1, '09:10', '09:11'],
    [10, 1.5, 0, 1, '09:15', '09:16'],
    [10, 1.25, 2.5, 0, '09:15', '09:15'],
    [1, 2, 0, 5, '09:02', '09:07'],
  ])('%s minutes × %s + %s, grace %s', (limit, factor, extra, grace, deadline, stops) => {
    expect(sectionLimits(scheduleWith(factor, extra, grace), { limit }, at('09:00'))).toEqual({
      deadline: at(deadline),
      stops: at(stops),
    })
  })
  it('is exact where floats are not: 0.1 of a factor more of three minutes', () => {
    expect(sectionMinutes({ factor: 1.1, extraMinutes: 0 }, 3)).toBe(3.3)
  })
  it('is never shortened', () => {
    const before = { deadline: at('09:20'), stops: at('09:21') }
    expect(neverShorterSection(before, { deadline: at('09:10'), stops: at('09:30') })).toEqual({
      deadline: at('09:20'),
      stops: at('09:30'),
    })
  })
})

const content = sampleContent([questionRow('a')])
content.sections.push(
  newSection({
    id: 's2',
    title: 'Part B',
    limit: 10,
    intro: '<p>SECRET</p>',
    rows: [questionRow('b'), questionRow('c')],
  }),
)

describe('a quiz with such a section', () => {
  it('tells it, and tells nothing where there is none', () => {
    expect(toldOfSections(content, scheduleWith(1.5, 0))[0]).toContain('15 minutes')
    expect(toldOfSections(sampleContent([questionRow('a')]), scheduleWith(1, 0))).toEqual([])
  })
  it('shows nothing of it before it is entered: whatever stands in it, the sheet is byte for byte the same', () => {
    const sheet = (over: object, entered: string[] = []) => {
      const edition = sampleEdition({
        ...content,
        sections: [content.sections[0]!, { ...content.sections[1]!, ...over }],
      })
      return JSON.stringify(sealPaper(compilePaper(edition, 'p1', 1, []), edition, null, new Set(entered)))
    }
    const rows = [questionRow('x'), questionRow('y')]
    expect(sheet({ rows, intro: '<p>Other</p>' })).toBe(sheet({}))
    expect(sheet({})).not.toContain('SECRET')
    expect(sheet({}, ['s2'])).toContain('SECRET')
    expect(sheet({ rows }, ['s2'])).toBe(sheet({}, ['s2']))
  })
  it('has a page of its own, and numbers go on through it', () => {
    const edition = sampleEdition({ ...content, pages: { by: 'all' } })
    const paper = compilePaper(edition, 'p1', 1, [])
    expect(paper.items.map((item) => item.page)).toEqual([0, 1, 1])
    const last = sampleEdition({ ...content, sections: [...content.sections].reverse() })
    const sheet = sealPaper(compilePaper(last, 'p1', 1, []), last)
    expect(sheet.sections[1]!.entries).toMatchObject([{ number: 3 }])
  })
})
