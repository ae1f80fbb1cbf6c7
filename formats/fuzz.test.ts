/** Files with any text in them come back; files with anything wrong in them are told. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { kindOf, plainText, question as questionSchema, type KindName, type Question } from '../core/question'
import { sampleQuestion } from '../tests/fixtures/core'
import { readFile, UnreadableFile } from '.'
import { readCsv } from './csv/read'
import { writeCsv } from './csv/write'
import { writeSheet } from './sheet/write'
import { readThistle, writeThistle } from './json/thistle'
import { readPackage } from './qti/package/read'
import { writePackage } from './qti/package/write'
import { fromAnyVersion } from './qti/names'
import { readItemTree } from './qti/read'
import { writeItem } from './qti/write'
import { decodeText } from './text'
import { document, readXml } from './xml'

/** Words as people write them, with what formats trip over. */
const awkward = fc.constantFrom(
  '&',
  '<',
  '>',
  '"',
  "'",
  ']]>',
  '<!--',
  '-->',
  '=',
  '|',
  ';',
  ',',
  '\\',
  '{=',
  '$',
  '#',
  '---',
  '- [x]',
  '&amp;',
  '&#8211;',
  '½',
  'ß',
  'İ',
  '水',
  '👩‍🚀',
  'a\u0301',
  '\u00a0',
  '%s',
  '${x}',
  '../',
)
const words = fc
  .array(fc.oneof(awkward, fc.stringMatching(/^[A-Za-z0-9]{1,8}$/)), { minLength: 1, maxLength: 6 })
  .map((parts) => parts.join(' ').trim())
  .filter((text) => /[A-Za-z0-9水]/.test(text) && !text.includes('{='))
const html = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
const distinct = fc.uniqueArray(words, { minLength: 4, maxLength: 4, selector: (text) => plainText(html(text)) })

/** A question of a kind with given words in stem, entries and comments. */
function withWords(kind: KindName, [stem, one, two, three]: string[]): Question {
  const base = sampleQuestion(kind)
  const entries = [one!, two!, three!].map(html)
  const body = structuredClone(base.body) as unknown as Record<
    string,
    { html?: string; comment?: string; text?: string }[]
  >
  for (const name of ['options', 'items', 'targets'])
    body[name]?.forEach((entry, i) => {
      entry.html = entries[i] ?? `Entry ${i}`
      if ('comment' in entry) entry.comment = `<p>${html(stem!)}</p>`
    })
  if (kind === 'text') body.answers![0]!.text = one!.slice(0, 200)
  const comments = { right: `<p>${html(two!)}</p>`, wrong: '', general: `<p>${html(three!)}</p>` }
  const given = {
    ...base,
    body,
    stem: `<p>${html(stem!)}</p>`,
    comments,
    source: one!,
    internalName: two!.slice(0, 160),
  }
  return questionSchema.parse(given)
}
const kinds = fc.constantFrom<KindName>(
  'choice',
  'choices',
  'text',
  'number',
  'matching',
  'sorting',
  'grid',
  'ordering',
  'written',
)

describe('any words', () => {
  it('come back equal through Thistle’s JSON and through packages of every version', () => {
    fc.assert(
      fc.property(
        kinds,
        distinct,
        fc.constantFrom('2.1' as const, '2.2' as const, '3.0' as const),
        (kind, texts, version) => {
          const question = withWords(kind, texts)
          const outgoing = [{ id: 'q1', folder: [texts[1]!.slice(0, 100)], objectives: [], question }]
          const json = readThistle(writeThistle(outgoing, new Map()))
          expect(json.items[0]!.question).toEqual(question)
          const packed = readPackage(writePackage(outgoing, { media: new Map() }, version))
          expect(packed.items[0]!.problem).toBeNull()
          expect(packed.items[0]!.question).toEqual(question)
        },
      ),
      { numRuns: 150 },
    )
  })
  it('are read the same from a bare item, which says nothing but QTI', () => {
    const speaking = fc.constantFrom<KindName>('choice', 'choices', 'matching', 'ordering')
    fc.assert(
      fc.property(speaking, distinct, (kind, texts) => {
        const question = withWords(kind, texts)
        const { question: back } = readItemTree(fromAnyVersion(readXml(document(writeItem(question, 'i1', '3.0')))))
        expect(plainText(back.stem)).toBe(plainText(question.stem))
        expect(kindOf(back.kind).keyText(back.body)).toBe(kindOf(question.kind).keyText(question.body))
      }),
      { numRuns: 150 },
    )
  })
  it('stand in a line of CSV and come out of it, formulas too', () => {
    fc.assert(
      fc.property(fc.constantFrom<KindName>('choice', 'choices', 'ordering'), distinct, (kind, texts) => {
        const question = withWords(kind, texts)
        const [back] = readCsv(writeCsv([{ question, folder: [], objectives: [] }])).items
        expect(back!.problem).toBeNull()
        expect(plainText(back!.question!.stem)).toBe(plainText(question.stem))
        expect(kindOf(kind).keyText(back!.question!.body as never)).toBe(kindOf(kind).keyText(question.body))
      }),
      // An option whose text is the letter of another is no key, whatever stands beside it.
      {
        numRuns: 150,
        examples: [
          ['choice', ['Which?', 'b', 'A &', 'A >']],
          ['choices', ['Which?', 'b', 'b)', 'A >']],
        ],
      },
    )
  })
})

/** Reads, or refuses in a sentence. (What is read is checked as if it had been typed: server/domain/imports/stage.ts.) */
async function ensureTold(bytes: Uint8Array, name: string): Promise<void> {
  try {
    for (const item of (await readFile(bytes, name)).items) {
      if (!item.question) expect(item.problem).toMatch(/^.{8,}/su)
    }
  } catch (error) {
    expect(error).toBeInstanceOf(UnreadableFile)
    expect((error as Error).message).toMatch(/^.{8,}/su)
  }
}
const question = sampleQuestion('choice')
const outgoing = [{ id: 'q1', folder: ['Tides'], objectives: ['1.1'], question }]
const files: [name: string, bytes: Uint8Array][] = [
  ['a.json', writeThistle(outgoing, new Map())],
  ['a.csv', new TextEncoder().encode(writeCsv(outgoing))],
  [
    'a.md',
    new TextEncoder().encode(
      '# Tides\n\nWhat falls?\n\n- [x] ebb\n  > Yes.\n- [ ] flood\n\n---\n\nHow high?\n\n= 3.9 ± 0.1 m\n',
    ),
  ],
  ['a.xml', new TextEncoder().encode(document(writeItem(question, 'q1', '2.2')))],
  ['a.zip', writePackage(outgoing, { media: new Map() }, '2.2')],
  ['a.xlsx', writeSheet(outgoing, 'xlsx')],
]

describe('anything wrong', () => {
  it('a state that the parser of Markdown takes for impossible', async () => {
    await ensureTold(new TextEncoder().encode('# T\n\nWhat?\n\n- [x] ebb\n  > Yes.\n-\n[ ] flood\n'), 'a.md')
  })

  it.each(files)('%s with bytes changed, cut off or doubled is told', async (name, bytes) => {
    const change = fc.record({
      at: fc.nat(bytes.length - 1),
      byte: fc.nat(255),
      cut: fc.nat(bytes.length),
      how: fc.constantFrom('set', 'cut', 'double', 'drop'),
    })
    await fc.assert(
      fc.asyncProperty(fc.array(change, { minLength: 1, maxLength: 4 }), async (changes) => {
        let broken = bytes
        for (const { at, byte, cut, how } of changes) {
          if (how === 'cut') broken = broken.slice(0, cut)
          else if (how === 'double')
            broken = new Uint8Array([...broken.slice(0, at), ...broken.slice(Math.max(0, at - 40))])
          else if (how === 'drop') broken = new Uint8Array([...broken.slice(0, at), ...broken.slice(at + 5)])
          else broken = broken.map((each, i) => (i === at ? byte : each))
        }
        await ensureTold(broken, name)
      }),
      { numRuns: 250 },
    )
  })
  it('any bytes at all, under any name', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.uint8Array({ maxLength: 400 }),
        fc.constantFrom('a.zip', 'a.xml', 'a.csv', 'a.md', 'a.json', 'a'),
        ensureTold,
      ),
      { numRuns: 400 },
    )
  })
  it('any text at all is Markdown, line by line', async () => {
    const lines = fc.constantFrom(
      '- [x] a',
      '- [ ] b',
      '> c',
      '---',
      '# d',
      '= 1 ± x',
      '= ',
      '| a | b |',
      '|---|---|',
      '1. e',
      '',
      '<b>',
      '$x',
      '```',
      '    f',
      '[l](javascript:x)',
    )
    await fc.assert(
      fc.asyncProperty(fc.array(fc.oneof(lines, fc.string()), { maxLength: 14 }), (text) =>
        ensureTold(new TextEncoder().encode(text.join('\n')), 'a.md'),
      ),
      { numRuns: 400 },
    )
  })
})

describe('encodings', () => {
  const line = 'kind,question,right\nfill,Où est l’été?,là\n'
  const narrow = (text: string) =>
    Uint8Array.from([...text].map((each) => ({ '’': 0x92 })[each] ?? each.codePointAt(0)!))
  const wide = (text: string, little: boolean) =>
    Uint8Array.from(
      [...`\ufeff${text}`].flatMap((each) => {
        const code = each.charCodeAt(0)
        return little ? [code & 255, code >> 8] : [code >> 8, code & 255]
      }),
    )
  it.each([
    ['UTF-8', new TextEncoder().encode(line)],
    ['UTF-8 with its mark', new TextEncoder().encode(`\ufeff${line}`)],
    ['Windows-1252', narrow(line)],
    ['UTF-16, little end first', wide(line, true)],
    ['UTF-16, big end first', wide(line, false)],
  ])('%s is read as it was written', (_name, bytes) => {
    expect(decodeText(bytes).replace(/^\ufeff/, '')).toBe(line)
  })
})
