import { describe, expect, it } from 'vitest'
import type { Stimulus } from '../../core/question'
import { sampleQuestion } from '../../tests/fixtures/core'
import type { PortableRow, PortableTest } from '../bundle'
import { readXml } from '../xml'
import { unzip, zip } from '../zip'
import { fromAnyVersion } from './names'
import { readPackage } from './package-read'
import { writePackage } from './package-write'
import { readTestTree } from './test'

const row = (items: string[], over: Partial<PortableRow> = {}): PortableRow => ({
  items,
  draw: items.length,
  points: 1,
  fixed: false,
  together: false,
  order: 'kept',
  ...over,
})
const stimulus: Stimulus = {
  name: 'A passage',
  language: 'en',
  html: '<p>Once there was a tide.</p>',
  source: '',
  translations: {},
}
const outgoing = Array.from({ length: 8 }, (_, i) => ({
  id: `q${i + 1}`,
  folder: [],
  objectives: [],
  question: { ...sampleQuestion('choice'), stem: `<p>Question ${i + 1}</p>`, stimulus: i >= 5 ? 'st1' : null },
}))
const test: PortableTest = {
  title: 'A test',
  limit: 45,
  mayOverrun: false,
  movement: 'forward',
  notes: [],
  sections: [
    {
      title: 'One',
      intro: '<p>Begin.</p>',
      order: 'kept',
      rows: [row(['q1'], { draw: 1, points: 2.5 }), row(['q2', 'q3', 'q4'], { draw: 2, order: 'shuffled' })],
    },
    {
      title: 'Two',
      intro: '',
      order: 'shuffled',
      rows: [row(['q5'], { draw: 1, fixed: true }), row(['q6', 'q7', 'q8'], { together: true, order: 'shuffled' })],
    },
  ],
}
const hrefs = (rows: PortableRow[]) =>
  rows.map((each) => ({ ...each, items: each.items.map((item) => `items/${item}.xml`) }))

describe('assessment tests', () => {
  it.each(['2.1', '2.2', '3.0'] as const)(
    '%s: sections, selection, ordering, weights and the time limit come back',
    (version) => {
      const back = readPackage(
        writePackage(outgoing, { media: new Map(), stimuli: new Map([['st1', stimulus]]), test }, version),
      )
      expect(back.tests).toEqual([
        { ...test, sections: test.sections.map((section) => ({ ...section, rows: hrefs(section.rows) })) },
      ])
      expect(back.items.map((item) => item.place)).toEqual(outgoing.map(({ id }) => `items/${id}.xml`))
      expect([...back.stimuli]).toEqual([['st1', stimulus]])
      expect(back.items.map((item) => item.stimulus)).toEqual([null, null, null, null, null, 'st1', 'st1', 'st1'])
    },
  )
  it.each(['2.2', '3.0'] as const)('%s: items of somebody else refer to what they share', (version) => {
    const files = unzip(
      writePackage(outgoing.slice(5), { media: new Map(), stimuli: new Map([['st1', stimulus]]) }, version),
    )
    const manifest = new TextDecoder()
      .decode(files.get('imsmanifest.xml'))
      .replace(/<metadata><settings.*?<\/settings><\/metadata>/g, '')
    const back = readPackage(zip(new Map([...files, ['imsmanifest.xml', new TextEncoder().encode(manifest)]])))
    expect(back.items.map((item) => [item.problem, item.stimulus])).toEqual([
      [null, 'st1'],
      [null, 'st1'],
      [null, 'st1'],
    ])
    expect(back.stimuli.get('st1')).toMatchObject({ name: 'A passage', html: '<p>Once there was a tide.</p>' })
  })
  const read = (inner: string) =>
    readTestTree(fromAnyVersion(readXml(`<assessmentTest identifier="t" title="T">${inner}</assessmentTest>`)), {
      item: (href) => href,
      section: (href) =>
        href === 's.xml'
          ? readXml(
              '<assessmentSection identifier="s" title="Elsewhere"><assessmentItemRef identifier="z" href="z.xml"/></assessmentSection>',
            )
          : null,
    })
  const ref = (name: string, more = '') => `<assessmentItemRef identifier="${name}" href="${name}.xml"${more}/>`
  it('what has to be drawn is on every paper, and the rest is drawn', () => {
    const { sections } = read(
      `<testPart identifier="p" navigationMode="nonlinear" submissionMode="individual"><assessmentSection identifier="s" title="S"><selection select="3"/>${ref('a', ' required="true"')}${ref('b')}${ref('c')}${ref('d')}</assessmentSection></testPart>`,
    )
    expect(sections[0]!.rows).toEqual([
      row(['a.xml'], { points: null }),
      row(['b.xml', 'c.xml', 'd.xml'], { draw: 2, points: null }),
    ])
  })
  it('a section that lies within itself, by way of another too, is told', () => {
    const section = (href: string) =>
      readXml(
        `<assessmentSection identifier="s" title="S"><assessmentSectionRef identifier="r" href="${href}"/></assessmentSection>`,
      )
    const refs = {
      item: (href: string) => href,
      section: (href: string) => ({ 'a.xml': section('b.xml'), 'b.xml': section('a.xml') })[href] ?? null,
    }
    expect(() =>
      readTestTree(
        readXml(
          '<assessmentTest title="T"><testPart><assessmentSectionRef identifier="a" href="a.xml"/></testPart></assessmentTest>',
        ),
        refs,
      ),
    ).toThrow(/“a.xml” lies within itself/)
  })
  it('sections that multiply are refused before they grow', () => {
    const refs = {
      item: (href: string) => href,
      section: (href: string) =>
        readXml(
          `<assessmentSection identifier="s" title="S">${`<assessmentSectionRef identifier="r" href="${Number(href) + 1}"/>`.repeat(10)}</assessmentSection>`,
        ),
    }
    expect(() =>
      readTestTree(
        readXml(
          '<assessmentTest title="T"><testPart><assessmentSectionRef identifier="a" href="1"/></testPart></assessmentTest>',
        ),
        refs,
      ),
    ).toThrow(/more than 1000 sections/)
  })
  it('sections in files of their own, time limits of parts, and what has no like here', () => {
    const found = read(
      `<testPart identifier="p" navigationMode="linear" submissionMode="simultaneous"><timeLimits maxTime="600"/><assessmentSectionRef identifier="s" href="s.xml"/><assessmentSection identifier="u" title="U"><preCondition><isNull/></preCondition><timeLimits maxTime="60"/>${ref('a')}</assessmentSection><assessmentSectionRef identifier="v" href="v.xml"/></testPart><outcomeProcessing/>`,
    )
    expect(found.sections.map((section) => section.title)).toEqual(['Elsewhere', 'U'])
    expect([found.limit, found.movement]).toEqual([10, 'forward'])
    expect(found.notes).toHaveLength(4)
    expect(found.notes.join(' ')).toMatch(
      /“v.xml” is not in the package.*Conditions and branches.*outcomes.*Time limits of single sections/,
    )
  })
})
