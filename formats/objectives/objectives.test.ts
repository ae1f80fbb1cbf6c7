import { describe, expect, it } from 'vitest'
import { UnreadableFile } from '../bundle'
import { readCase, readObjectives, readObjectivesCsv, writeCase, writeObjectivesCsv, type PortableObjective } from '.'

const bytes = (text: string) => new TextEncoder().encode(text)
const objective = (name: string, over: Partial<PortableObjective> = {}): PortableObjective => ({
  name,
  parent: null,
  code: name,
  title: `Objective ${name}`,
  essential: false,
  needs: [],
  ...over,
})
const tree = [
  objective('1'),
  objective('1.1', { parent: '1', essential: true }),
  objective('1.2', { parent: '1', needs: ['1.1'] }),
  objective('2', { needs: ['1.1', '1.2'] }),
]

describe('CSV of objectives', () => {
  it('comes back equal', () => expect(readObjectivesCsv(writeObjectivesCsv(tree))).toEqual(tree))
  it('takes columns in any order, and parents after their children', () => {
    expect(
      readObjectivesCsv('title;code;parent\nUnder;1.1;1\nTop;1;\n').map((each) => [each.code, each.parent]),
    ).toEqual([
      ['1', null],
      ['1.1', '1'],
    ])
  })
  it.each([
    ['code,name\n1,x', /lacks the column title/],
    ['code,title\n1,a\n1,b', /same code/],
    ['code,title,parent\n1,a,9', /Line 2 names “9”/],
    ['code,title\n,a\n2,', /Line 2 has no code. Line 3 has no title/],
    ['code,title,needs\n1,a,2|3', /names “2”.*names “3”/],
  ])('says what is wrong with %j', (text, sentence) => expect(() => readObjectivesCsv(text)).toThrow(sentence))
  it('a chain without end is refused before it is followed', () => {
    const chain = Array.from({ length: 5000 }, (_, i) => `${i + 1},Objective,${i || ''}`).join('\n')
    expect(() => readObjectivesCsv(`code,title,parent\n${chain}`)).toThrow(/more than 30 deep/)
  })
  it('what would lie within itself stands at the top', () =>
    expect(readObjectivesCsv('code,title,parent\n1,a,2\n2,b,1').map((each) => each.parent)).toEqual([null, null]))
})

// The shape of a package is that of 1EdTech CASE 1.0, written from memory of the standard; its statements are invented.
describe('CASE', () => {
  const item = (identifier: string, humanCodingScheme: string, fullStatement: string) => ({
    identifier,
    uri: `urn:uuid:${identifier}`,
    humanCodingScheme,
    fullStatement,
    lastChangeDateTime: '2026-01-01T00:00:00Z',
  })
  const link = (associationType: string, origin: string, destination: string, sequenceNumber?: number) => ({
    identifier: `${origin}-${destination}`,
    uri: 'urn:x',
    associationType,
    originNodeURI: { title: '', identifier: origin, uri: 'urn:x' },
    destinationNodeURI: { title: '', identifier: destination, uri: 'urn:x' },
    sequenceNumber,
    lastChangeDateTime: '2026-01-01T00:00:00Z',
  })
  const document = {
    CFDocument: {
      identifier: 'doc',
      uri: 'urn:doc',
      title: 'Seamanship',
      creator: 'x',
      lastChangeDateTime: '2026-01-01T00:00:00Z',
    },
    CFItems: [
      item('b', '1.2', 'Ties a **bowline**'),
      item('s', '1', 'Ropework'),
      item('a', '1.1', 'Names the parts of a rope'),
      item('w', '', 'Without a code'),
    ],
    CFAssociations: [
      link('isChildOf', 's', 'doc', 1),
      link('isChildOf', 'b', 's', 2),
      link('isChildOf', 'a', 's', 1),
      link('precedes', 'a', 'b'),
      link('isRelatedTo', 'a', 'w'),
      link('isChildOf', 'w', 'doc', 2),
    ],
  }
  it('is read as a tree in its order, with what precedes', () => {
    expect(readCase(document).map(({ kept: _kept, ...rest }) => rest)).toEqual([
      objective('s', { code: '1', title: 'Ropework' }),
      objective('a', { parent: 's', code: '1.1', title: 'Names the parts of a rope' }),
      objective('b', { parent: 's', code: '1.2', title: 'Ties a bowline', needs: ['a'] }),
      objective('w', { code: '', title: 'Without a code' }),
    ])
  })
  it('written out and read again it is the same tree, by identifiers that stay', () => {
    const text = writeCase(tree, 'Seamanship', '2026-11-24T00:00:00Z')
    expect(writeCase(tree, 'Seamanship', '2026-11-24T00:00:00Z')).toBe(text)
    const back = readObjectives(bytes(text))
    const codeOf = new Map(back.map((each) => [each.name, each.code]))
    expect(
      back.map(({ kept: _kept, ...each }) => ({
        ...each,
        name: each.code,
        parent: each.parent && codeOf.get(each.parent),
        needs: each.needs.map((need) => codeOf.get(need)),
      })),
    ).toEqual(tree.map((each) => ({ ...each, essential: false })))
    expect(
      back.every((each) => /^[0-9a-f]{8}-[0-9a-f]{4}-8[0-9a-f]{3}-8[0-9a-f]{3}-[0-9a-f]{12}$/.test(each.name)),
    ).toBe(true)
  })
  it('texts come whole: what looks like a mark and is none stays', () => {
    const title = (fullStatement: string) =>
      readCase({ CFDocument: { identifier: 'd' }, CFItems: [{ identifier: 'x', fullStatement }] })[0]!.title
    expect(
      [
        'C# and F#',
        '2*3 is 6',
        'read_csv and to_csv',
        '# 1 is a number',
        '1. Count',
        'a < b & c',
        'Uses `sort`',
        '**Bold** _words_',
      ].map(title),
    ).toEqual([
      'C# and F#',
      '2*3 is 6',
      'read_csv and to_csv',
      '# 1 is a number',
      '1. Count',
      'a < b & c',
      'Uses sort',
      'Bold words',
    ])
  })
  it('several parents, other associations, licence and version go out again', () => {
    const source = {
      CFDocument: {
        ...document.CFDocument,
        version: '2.1',
        licenseURI: { identifier: 'l', title: 'CC BY', uri: 'urn:l' },
      },
      CFItems: document.CFItems.map((each) => ({ ...each, educationLevel: ['09'] })),
      CFAssociations: [
        ...document.CFAssociations,
        link('isChildOf', 'b', 'w', 3),
        link('exactMatchOf', 'a', 'elsewhere'),
      ],
    }
    const back = JSON.parse(writeCase(readCase(source), 'Seamanship', '2026-11-24T00:00:00Z')) as typeof source
    expect(back.CFDocument).toMatchObject({ version: '2.1', licenseURI: { title: 'CC BY' }, creator: 'x' })
    expect(back.CFItems.every((each) => each.educationLevel[0] === '09')).toBe(true)
    expect(back.CFItems.find((each) => each.humanCodingScheme === '1.2')!.fullStatement).toBe('Ties a **bowline**')
    const again = readCase(back)
    const [was, is] = [readCase(source), again].map((all) =>
      all.map(({ code, title, kept }) => [code, title, kept!.links.map(({ type }) => type)]),
    )
    expect(is).toEqual(was)
    expect(is!.find(([code]) => code === '1.2')![2]).toEqual(['isChildOf'])
    expect(is!.find(([code]) => code === '1.1')![2]).toEqual(['isRelatedTo', 'exactMatchOf'])
  })
  it.each([
    '{"CFItems": []}',
    '{"CFDocument": {"identifier": "d"}, "CFItems": [{"identifier": "x"}]}',
    '{broken',
    'a\u0000b',
  ])('what cannot be read is told: %j', (text) => expect(() => readObjectives(bytes(text))).toThrow(UnreadableFile))
})
