/** A key is never guessed: what a line of a table says is right is understood in one way, or asked back at its cell. */
import { describe, expect, it } from 'vitest'
import { kindOf } from '../../core/question'
import { readCsv } from '../csv/read'

const line = (columns: Record<string, string>, separator = ',') => {
  const cell = (text: string) => `"${text.replace(/"/g, '""')}"`
  return `${Object.keys(columns).join(separator)}\n${Object.values(columns).map(cell).join(separator)}\n`
}
const only = (columns: Record<string, string>, separator = ',') =>
  readCsv(line({ kind: 'choice', question: 'Which?', ...columns }, separator)).items[0]!
/** The key in words, or what is asked back. */
const said = (columns: Record<string, string>, separator = ',') => {
  const { problem, question } = only(columns, separator)
  return problem ?? kindOf(question!.kind).keyText(question!.body as never)
}
const tides = { option_a: 'ebb', option_b: 'flood', option_c: 'slack' }

describe('options', () => {
  it.each<[string, Record<string, string>, string | RegExp]>([
    ['a letter', { ...tides, right: 'b' }, 'flood'],
    ['a letter with a bracket, in capitals', { ...tides, right: ' B) ' }, 'flood'],
    ['its words', { ...tides, right: 'Flood' }, 'flood'],
    ['a letter without an option', { ...tides, right: 'd' }, /^Line 2, right: There is no option d/],
    ['a letter whose cell is empty', { option_a: 'ebb', option_c: 'slack', right: 'b' }, /There is no option b/],
    ['two letters for one', { ...tides, right: 'a, b' }, /names 2 options, and a choice has one/],
    ['other words', { ...tides, right: 'high water' }, /“high water” is none of the options/],
    ['words that two options have', { option_a: 'ebb', option_b: 'ebb', right: 'ebb' }, /is none of the options/],
    ['nothing', { ...tides, right: '' }, /nothing says what is right/],
    [
      'a letter that is another’s words',
      { option_a: 'b', option_b: 'a', right: 'a' },
      /names options by their letters/,
    ],
    ['its own letter', { option_a: 'a', option_b: 'b', right: 'a' }, 'a'],
    ['several, by letters', { kind: 'choices', ...tides, right: 'a; c' }, 'ebb · slack'],
    ['several, by words', { kind: 'choices', ...tides, right: 'ebb | slack' }, 'ebb · slack'],
    [
      'letters that are the words of one',
      { kind: 'choices', option_a: 'x', option_b: 'y', option_c: 'a b', right: 'a b' },
      /names options by their letters/,
    ],
  ])('%s', (_name, columns, expected) => {
    if (typeof expected === 'string') expect(said(columns)).toBe(expected)
    else expect(said(columns)).toMatch(expected)
  })
})

describe('true and false', () => {
  it.each([
    ['true', true],
    ['WAHR', true],
    ['Vrai', true],
    ['sí', true],
    ['1', true],
    ['falsch', false],
    ['faux', false],
    ['não', false],
    ['nie', false],
    ['0', false],
    ['maybe', null],
    ['a', null],
    ['T/F', null],
    ['', null],
  ])('“%s” is %s', (right, truth) => {
    const found = said({ kind: 'true/false', right })
    if (truth === null) expect(found).toMatch(/^Line 2, right: /)
    else expect(found).toBe(truth ? 'True' : 'False')
  })
})

describe('numbers', () => {
  const number = (right: string, separator = ',', tolerance = '') =>
    said({ kind: 'number', right, tolerance }, separator)
  it.each<[string, string, string, string | RegExp]>([
    ['a point where points part', '3.75', ',', '3.75'],
    ['three decimals where points part', '1.852', ',', '1.852'],
    ['a decimal comma where semicolons part', '3,75', ';', '3.75'],
    ['a point where semicolons part', '3.75', ';', '3.75'],
    ['three decimals of nothing', '0,125', ';', '0.125'],
    ['three decimals, or thousands', '1,852', ';', /can be read in two ways/],
    ['thousands, or three decimals', '1.852', ';', /can be read in two ways/],
    ['thousands with a comma', '1,000', ',', /can be read in two ways/],
    ['thousands with a space', '1 000', ',', /is not a plain number/],
    ['a comma where points part', '3,75', ',', /Is “3,75” a decimal/],
    ['millions', '1,000,000', ',', /is not a plain number/],
    ['a minus of typesetters', '−4', ',', '−4'],
    ['a plus', '+4', ',', '4'],
    ['an exponent', '1.5e3', ',', '1500'],
    ['several', '4 | -4', ',', '4 or −4'],
    ['words', 'four', ',', /is not a plain number/],
    ['a unit', '4 m', ',', /is not a plain number/],
    ['a fraction', '1/2', ',', /is not a plain number/],
    ['a share', '5%', ',', /is not a plain number/],
    ['nothing between two signs', '4 || 5', ',', /is not a plain number/],
  ])('%s', (_name, right, separator, expected) => {
    if (typeof expected === 'string') expect(number(right, separator)).toBe(expected)
    else expect(number(right, separator)).toMatch(expected)
  })
  it.each<[string, string | RegExp]>([
    ['0.1', '4 ± 0.1'],
    ['2%', '4 ± 2 %'],
    ['2 %', '4 ± 2 %'],
    ['3 figures', '4 to 3 significant figures'],
    ['1 decimals', '4 to 1 decimals'],
    ['0,1', /tolerance: Is “0,1” a decimal/],
    ['about 1', /is not a plain number/],
    ['± 1', /is not a plain number/],
  ])('a tolerance of “%s”', (tolerance, expected) => {
    if (typeof expected === 'string') expect(number('4', ',', tolerance)).toBe(expected)
    else expect(number('4', ',', tolerance)).toMatch(expected)
  })
})

describe('texts, pairs and lines', () => {
  it.each<[string, Record<string, string>, string | RegExp]>([
    ['accepted texts', { kind: 'text', right: 'ebb | ebb tide' }, 'ebb or ebb tide'],
    ['nothing between two signs', { kind: 'text', right: 'ebb || low' }, /Between two \| stands nothing/],
    [
      'pairs, with a partner that is left over',
      { kind: 'matching', option_a: 'Port = red', option_b: 'Starboard = green', option_c: ' = white' },
      'Port – red · Starboard – green',
    ],
    [
      'words that have the sign themselves',
      { kind: 'matching', option_a: 'x=1 = one', option_b: 'x=2 = two' },
      'x=1 – one · x=2 – two',
    ],
    ['a pair without its sign', { kind: 'matching', option_a: 'Port red' }, /has no partner/],
    ['an order', { kind: 'ordering', option_a: 'one', option_b: 'two' }, 'one → two'],
    ['a kind that no line holds', { kind: 'spot' }, /cannot be written in a line of a table/],
    ['a kind of no name', { kind: 'riddle' }, /“riddle” is not a kind/],
  ])('%s', (_name, columns, expected) => {
    if (typeof expected === 'string') expect(said(columns)).toBe(expected)
    else expect(said(columns)).toMatch(expected)
  })
})

describe('the file', () => {
  it('says itself what parts its cells', () => {
    const { items } = readCsv('sep=;\nkind;question;right\nnumber;How long?;3,75\n')
    expect([items[0]!.place, items[0]!.problem]).toEqual(['line 3', null])
    expect(kindOf('number').keyText(items[0]!.question!.body)).toBe('3.75')
  })
  it('tells where a quotation mark is not closed, and nothing after it is taken for something else', () => {
    const { items } = readCsv('kind,question,right\ntext,Which?,ebb\ntext,"Which falls?,ebb\ntext,And which?,flood\n')
    expect(items.map(({ place, problem }) => [place, problem])).toEqual([
      ['line 2', null],
      ['line 3', expect.stringMatching(/quotation mark that opens in line 3 is not closed/)],
    ])
  })
  it('counts lines as the file does, also where cells have several', () => {
    const { items } = readCsv('kind,question,right\ntext,"One\ntwo\nthree",x\nriddle,Which?,y\n')
    expect(items.map(({ place, problem }) => [place, problem?.slice(0, 12) ?? null])).toEqual([
      ['line 2', null],
      ['line 5', 'Line 5, kind'],
    ])
  })
  it('tells columns that are not known, cells beyond the last, and two of one name', () => {
    const { items } = readCsv('kind,question,right,colour\ntext,Which?,ebb,red,more\n')
    expect(items[0]!.notes).toEqual([
      'This line has more cells than the header names; those beyond are left out.',
      'Columns that are not known are left out: colour.',
    ])
    expect(() => readCsv('kind,question,right,right\ntext,a,b,c\n')).toThrow(/Two columns are called “right”/)
    expect(() => readCsv('art,frage\ntext,a\n')).toThrow(/The first line has to name the columns/)
  })
})
