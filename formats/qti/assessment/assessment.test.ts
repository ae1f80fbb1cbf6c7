import { describe, expect, it } from 'vitest'
import type { Stimulus } from '../../../core/question'
import { sampleQuestion } from '../../../tests/fixtures/core'
import type { PortableRow, PortableTest } from '../../bundle'
import { readXml } from '../../xml'
import { unzip, zip } from '../../zip'
import { fromAnyVersion } from '../names'
import { readPackage } from '../package/read'
import { writePackage } from '../package/write'
import { readTestTree } from './read'

const row = (items: string[], over: Partial<PortableRow> = {}): PortableRow => ({
  items,
  draw: items.length,
  points: 1,
  fixed: false,
  together: false,
  order: 'kept',
  required: false,
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
  intro: '',
  limit: 45,
  mayOverrun: false,
  movement: 'forward',
  notes: [],
  sections: [
    {
      title: 'One',
      intro: '<p>Begin.</p>',
      order: 'kept',
      limit: null,
      rows: [row(['q1'], { draw: 1, points: 2.5 }), row(['q2', 'q3', 'q4'], { draw: 2, order: 'shuffled' })],
    },
    {
      title: 'Two',
      intro: '',
      order: 'shuffled',
      limit: 20,
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
      items: (href) => [href],
      points: () => 1,
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
  const part = (name: string, seconds: number | null, inner = ref('a')) =>
    `<testPart identifier="${name}" navigationMode="nonlinear" submissionMode="individual">${seconds === null ? '' : `<timeLimits maxTime="${seconds}"/>`}<assessmentSection identifier="s${name}" title="S">${inner}</assessmentSection></testPart>`
  const limits = (seconds: number) => `<timeLimits maxTime="${seconds}"/>`
  it.each([
    ['the test’s own', limits(3600) + part('p', null), 60, []],
    ['that of its only part', part('p', 600), 10, []],
    [
      'its own beside that of a part',
      limits(3600) + part('p', 600) + part('q', null),
      60,
      ['parts (10 minutes) are left'],
    ],
    ['those of all parts', part('p', 600) + part('q', 900), 25, ['10, 15 minutes each; here there are 25']],
    ['that of one of two parts', part('p', 600) + part('q', null), null, ['parts (10 minutes) are left']],
    ['of a hundred seconds', limits(100) + part('p', null), 2, ['100 seconds is 2 minutes']],
    ['of a century', limits(4e9) + part('p', null), null, ['4000000000 seconds is left out']],
    ['with a least time', '<timeLimits minTime="60" maxTime="120"/>' + part('p', null), 2, ['least time']],
  ])('a time limit: %s', (_name, inner, limit, told) => {
    const found = read(inner)
    expect(found.limit).toBe(limit)
    expect(found.notes).toEqual(told.map((each) => expect.stringContaining(each) as string))
  })
  const weighed = ref('a').replace(
    '/>',
    '><weight identifier="W" value="3"/><weight identifier="X" value="5"/><weight identifier="T" value="0.333333"/></assessmentItemRef>',
  )
  const counted = (attributes: string) =>
    `<outcomeProcessing><setOutcomeValue identifier="TOTAL"><sum><testVariables ${attributes}/></sum></setOutcomeValue></outcomeProcessing>`
  it.each([
    ['no processing: the first there is', '', 3, []],
    ['by the weight that the sum names', counted('variableIdentifier="SCORE" weightIdentifier="X"'), 5, []],
    ['by none where it names none', counted('variableIdentifier="SCORE"'), null, []],
    [
      'of some items only',
      counted('variableIdentifier="SCORE" weightIdentifier="W" includeCategory="hard"'),
      3,
      ['Only some'],
    ],
    [
      'a third of a point',
      counted('weightIdentifier="T"'),
      0.33,
      ['worth 0.3333 points in the file is worth 0.33 here'],
    ],
    ['of another outcome', counted('variableIdentifier="EXTRA" weightIdentifier="W"'), 3, ['Its own processing']],
  ])('weights: %s', (_name, processing, points, told) => {
    const found = read(part('p', null, weighed) + processing)
    expect(found.sections[0]!.rows[0]!.points).toBe(points)
    expect(found.notes).toEqual(told.map((each) => expect.stringContaining(each) as string))
  })
  it('when it is passed, and what it changes in its items, is told', () => {
    const changed = ref('a').replace(
      '/>',
      '><variableMapping sourceIdentifier="SCORE" targetIdentifier="EXTRA"/><templateDefault templateIdentifier="X"/></assessmentItemRef>',
    )
    const { notes } = read(
      `<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" masteryValue="12"/>${part('p', null, changed)}`,
    )
    expect(notes).toEqual([
      expect.stringMatching(/Values that the test gives/),
      expect.stringMatching(/other outcomes of some items/),
      'In the file it is passed from 12 on; say so in the rules.',
    ])
  })
  it('items that are not there, and weights that are none, are told; what may be skipped is inherited', () => {
    const found = readTestTree(
      readXml(
        `<assessmentTest title="T"><testPart><itemSessionControl allowSkipping="false"/><assessmentSection identifier="s" title="S">
          <assessmentItemRef identifier="a" href="a.xml"><weight identifier="W" value="-2"/></assessmentItemRef>
          <assessmentItemRef identifier="b" href="gone.xml"/>
          <assessmentItemRef identifier="c" href="c.xml"><itemSessionControl allowSkipping="true"/><weight identifier="W" value="2"/></assessmentItemRef>
        </assessmentSection></testPart></assessmentTest>`,
      ),
      { items: (href) => (href === 'gone.xml' ? null : [href]), points: () => 1, section: () => null },
    )
    expect(found.sections[0]!.rows.map(({ items, required, points }) => [items, required, points])).toEqual([
      [['a.xml'], true, null],
      [['c.xml'], false, 2],
    ])
    expect(found.notes).toEqual(
      expect.arrayContaining([
        'The item “b” (gone.xml) is not in the package and is left out.',
        'A weight of “-2” has no like here: the item counts what it is worth by itself.',
      ]),
    )
  })
  it('a section that lies within itself, by way of another too, is told', () => {
    const section = (href: string) =>
      readXml(
        `<assessmentSection identifier="s" title="S"><assessmentSectionRef identifier="r" href="${href}"/></assessmentSection>`,
      )
    const refs = {
      items: (href: string) => [href],
      points: () => 1,
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
      items: (href: string) => [href],
      points: () => 1,
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
    expect(found.sections.map((section) => section.limit)).toEqual([null, 1])
    expect(found.notes).toHaveLength(3)
    expect(found.notes.join(' ')).toMatch(/outcomes.*“v.xml” is not in the package.*Conditions and branches/)
  })
})
