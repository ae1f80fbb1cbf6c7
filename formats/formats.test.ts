import Ajv from 'ajv/dist/2020'
import { zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { bank } from '../demo/bank'
import { withPictures } from '../demo/bank/pictures'
import { rightAnswer, wrongAnswer } from '../core/trial'
import { kindNames, kindOf, questionFaults, scoreAnswer, type Question } from '../core/question'
import { creditedQuestions, sampleQuestion } from '../tests/fixtures/core'
import { readFile, UnreadableFile } from '.'
import { readCsv } from './csv/read'
import { csvTemplate, writeCsv } from './csv/write'
import { readThistle, thistleFileSchema, writeThistle } from './json/thistle'
import type { OutgoingQuestion } from './format'
import { readMarkdown } from './markdown/read'
import { digestOf } from './bundle'
import { readPackage } from './qti/package/read'
import { writePackage } from './qti/package/write'
import { fromAnyVersion } from './qti/names'
import { readItemTree } from './qti/read'
import { writeItem } from './qti/write'
import { document, readXml } from './xml'
import { unzip, zip } from './zip'

const picture = new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 7])
const digest = digestOf(picture)
const media = new Map([[digest, picture]])
const demo: OutgoingQuestion[] = bank.map(({ id, question }) => ({
  id,
  folder: ['Tides', 'Levels'],
  objectives: ['1.1'],
  question: { ...withPictures(question, () => `/api/media/${digest}`), objectives: [] },
}))
const bytes = (text: string) => new TextEncoder().encode(text)

describe('Thistle’s own JSON', () => {
  it('comes back equal', () => {
    const back = readThistle(writeThistle(demo, media))
    expect(back.items.map((item) => item.question)).toEqual(demo.map((each) => each.question))
    expect(back.items[0]).toMatchObject({
      outsideId: demo[0]!.id,
      folder: ['Tides', 'Levels'],
      objectives: ['1.1'],
      problem: null,
    })
    expect(back.media).toEqual(media)
  })
  it('its JSON Schema, published from the same description, is accepted by ajv and accepts the file', () => {
    const ajv = new Ajv({ strict: false })
    const valid = ajv.compile(thistleFileSchema())
    expect(valid(JSON.parse(new TextDecoder().decode(writeThistle(demo, media))))).toBe(true)
    expect(
      valid({ format: 'thistle-questions', version: 1, questions: [{ id: 'x', question: { kind: 'riddle' } }] }),
    ).toBe(false)
  })
  it('what is no list of questions, or of another kind, is told in words', () => {
    const items = (questions: unknown) =>
      readThistle(bytes(JSON.stringify({ format: 'thistle-questions', version: 1, questions }))).items
    expect(() => items([])).toThrow(/holds no questions/)
    expect(() => items('x')).toThrow(/holds no questions/)
    expect(items([{ id: 'a', question: { kind: 'riddle' } }])[0]!.problem).toBe('“riddle” is not a kind of question.')
    expect(items([{ id: 5, question: demo[0]!.question }])[0]!.problem).toMatch(/^id: /)
  })
  it('one broken question does not keep the others out', () => {
    const file = JSON.parse(new TextDecoder().decode(writeThistle(demo.slice(0, 3), media))) as {
      questions: { question: { points: unknown } }[]
    }
    file.questions[1]!.question.points = 'many'
    expect(readThistle(bytes(JSON.stringify(file))).items.map((item) => item.problem)).toEqual([
      null,
      'question › points: Points are a number.',
      null,
    ])
  })
})

describe('QTI', () => {
  it.each(['2.1', '2.2', '3.0'] as const)('%s: a package comes back equal', (version) => {
    const back = readPackage(writePackage(demo, { media }, version))
    expect(back.items.filter((item) => item.problem)).toEqual([])
    expect(back.items.map((item) => item.question)).toEqual(demo.map((each) => each.question))
    expect(back.media).toEqual(media)
  })
  const kinds = [...kindNames.map((kind) => sampleQuestion(kind)), ...creditedQuestions()].map(
    (question) => [question.kind, question] as const,
  )
  it.each(kinds)('%s: the item alone, without Thistle’s settings, is read as the same kind', (kind, question) => {
    for (const version of ['2.1', '2.2', '3.0'] as const) {
      const { question: back } = readItemTree(fromAnyVersion(readXml(document(writeItem(question, 'i1', version)))))
      // True/false and yes/no are told from any choice by their words.
      expect(back.kind, version).toBe(kind)
      // Units stand in QTI's words around the field; names of places and model answers of hand-marked kinds are in no key of QTI.
      if (!kindOf(kind).byHand && kind !== 'spot')
        expect(kindOf(back.kind).keyText(back.body)).toBe(kindOf(kind).keyText(question.body))
    }
  })
  const automatic = demo.filter(
    ({ question }) => !kindOf(question.kind).byHand && !question.vary && question.kind !== 'gaps',
  )
  it('items of the demo bank score alike after a journey through bare QTI', () => {
    const rule = (question: Question) =>
      question.kind === 'ordering' ? ({ ...question, body: { ...question.body, rule: 'exact' } } as Question) : question
    for (const { id, question } of automatic) {
      const read = readItemTree(fromAnyVersion(readXml(document(writeItem(question, 'i1', '2.2'))))).question
      const back =
        read.kind === 'number' && question.kind === 'number'
          ? ({
              ...read,
              body: { ...read.body, unit: question.body.unit, unitAsked: question.body.unitAsked },
            } as Question)
          : read
      let draw = 0
      for (const answer of [rightAnswer(question), wrongAnswer(question, (bound) => draw++ % bound)]) {
        const [before, after] = [
          scoreAnswer(rule(question), {}, answer).fraction!,
          scoreAnswer(back, {}, answer).fraction!,
        ]
        const number = (text: string) => {
          const [n, d = '1'] = text.split('/')
          return Number(n) / Number(d)
        }
        if (question.kind === 'text' && question.body.slips) continue
        expect(Math.abs(number(after) - number(before)), `${id}: ${before} became ${after}`).toBeLessThan(0.011)
      }
    }
  })
  it('what cannot be read is told item by item, and the rest comes in', () => {
    const good = document(writeItem(sampleQuestion('choice'), 'good', '2.2'))
    const files = new Map([
      ['a.xml', bytes(good)],
      ['b.xml', bytes('<assessmentItem identifier="b"><itemBody><p>Nothing</p></itemBody></assessmentItem>')],
      ['c.xml', bytes('<assessmentItem><itemBody>')],
      [
        'd.xml',
        bytes(
          good
            .replace('choiceInteraction', 'drawingInteraction')
            .replace('</choiceInteraction', '</drawingInteraction'),
        ),
      ],
    ])
    const { items } = readPackage(zip(files))
    expect(items.map((item) => item.problem)).toEqual([
      null,
      'The item asks nothing.',
      expect.stringMatching(/This XML is broken/),
      expect.stringMatching(/drawingInteraction.*no like here/),
    ])
  })
  it('an item that somebody has changed is believed over the settings beside it', () => {
    const files = unzip(writePackage([demo[0]!], { media }, '2.2'))
    const name = [...files.keys()].find((each) => each.startsWith('items/'))!
    files.set(
      name,
      bytes(new TextDecoder().decode(files.get(name)).replace('What does chart datum', 'What DOES chart datum')),
    )
    expect(readPackage(zip(files)).items[0]!.question!.stem).toContain('What DOES')
  })
})

describe('CSV', () => {
  it('its template is read whole', () => {
    const { items } = readCsv(csvTemplate())
    expect(items.map((item) => [item.problem, item.question && questionFaults(item.question)])).toEqual(
      items.map(() => [null, []]),
    )
    expect(items.map((item) => item.question!.kind)).toEqual([
      'choice',
      'choices',
      'number',
      'text',
      'trueFalse',
      'ordering',
      'matching',
      'choice',
    ])
    expect(items.at(-1)!.question!.keyless).toBe(true)
    expect(items[0]).toMatchObject({ folder: ['Tides', 'Levels'], question: { tags: ['tides'], difficulty: 2 } })
  })
  it('what it can carry comes back scoring alike', () => {
    const simple = demo.filter(
      ({ question }) =>
        ['choice', 'choices', 'trueFalse', 'number', 'ordering'].includes(question.kind) && !question.vary,
    )
    const { items } = readCsv(writeCsv(simple))
    for (const [i, { question }] of simple.entries())
      expect(kindOf(items[i]!.question!.kind).keyText(items[i]!.question!.body), question.stem).toBe(
        kindOf(question.kind).keyText(question.body),
      )
  })
  it('tells broken lines by their number, whatever parts the columns', () => {
    const { items } = readCsv('kind;question;right\nriddle;Who?;me\nchoice;;a\nspot;Where?;\n')
    expect(items.map((item) => [item.place, item.problem])).toEqual([
      ['line 2', expect.stringMatching(/“riddle” is not a kind/)],
      ['line 3', expect.stringMatching(/^Line 3, right: There is no option a/)],
      ['line 4', expect.stringMatching(/cannot be written in a line of a table/)],
    ])
  })
  it('a cell that begins like a formula is not one', () => {
    expect(
      writeCsv([{ question: { ...sampleQuestion('text'), stem: '=cmd()' }, folder: [], objectives: [] }]),
    ).toContain("'=cmd()")
  })
})

describe('Markdown', () => {
  const one = (source: string) => readMarkdown(source).items[0]!
  it('a task list is a choice, several ticks are choices, quotes are comments', () => {
    expect(one('What **falls**?\n\n- [x] ebb\n  > Right.\n- [ ] flood\n')).toMatchObject({
      problem: null,
      question: {
        kind: 'choice',
        stem: '<p>What <strong>falls</strong>?</p>',
        body: {
          options: [
            { html: 'ebb', credit: 1, comment: '<p>Right.</p>' },
            { html: 'flood', credit: 0 },
          ],
        },
      },
    })
    expect(one('Which?\n\n- [x] a\n- [x] b\n- [ ] c').question).toMatchObject({
      kind: 'choices',
      body: { options: [{ right: true }, { right: true }, { right: false }] },
    })
  })
  it('numbers, texts, orderings and matchings', () => {
    expect(one('How high?\n\n= 3.9 ± 0.1 m').question).toMatchObject({
      kind: 'number',
      body: { unit: 'm', answers: [{ value: '3.9', near: { by: 'absolute', tolerance: '0.1' } }] },
    })
    expect(one('How high?\n= 3,9 ± 2 %').question).toMatchObject({
      kind: 'number',
      stem: '<p>How high?</p>',
      body: { style: 'comma', answers: [{ near: { by: 'relative', tolerance: '0.02' } }] },
    })
    expect(one('Which tide?\n\n= ebb | ebb tide').question).toMatchObject({
      kind: 'text',
      body: { answers: [{ text: 'ebb' }, { text: 'ebb tide' }] },
    })
    expect(one('Order\n\n1. one\n2. two\n3. three').question).toMatchObject({
      kind: 'ordering',
      body: { items: [{ html: 'one' }, { html: 'two' }, { html: 'three' }] },
    })
    expect(one('Match\n\n| Port | red |\n|---|---|\n| Starboard | green |').question).toMatchObject({
      kind: 'matching',
      body: { items: [{ html: 'Port' }, { html: 'Starboard' }], targets: [{ html: 'red' }, { html: 'green' }] },
    })
  })
  it('rules part questions, also right under a line; headings are folders', () => {
    const { items } = readMarkdown(
      '# Tides\n\nOne?\n= a\n---\nTwo?\n\n= b\n\n## Springs\n\nThree?\n\n= c\n\n# Lights\n\nFour?\n\n= d',
    )
    expect(items.map((item) => [item.folder.join('/'), item.question?.stem])).toEqual([
      ['Tides', '<p>One?</p>'],
      ['Tides', '<p>Two?</p>'],
      ['Tides/Springs', '<p>Three?</p>'],
      ['Lights', '<p>Four?</p>'],
    ])
  })
  it('maths stands between dollar signs; prices do not', () => {
    expect(one('What is $x^2$ for $5?\n\n= 4').question!.stem).toContain('data-latex="x^2"')
    expect(one('It costs $5 or $6?\n\n= 4').question!.stem).not.toContain('data-latex')
  })
  it('marks at its place what was not understood', () => {
    expect(one('Only words.')).toMatchObject({
      question: null,
      problem: expect.stringMatching(/no answer/),
      place: 'question 1, line 1',
    })
    expect(one('Q\n\n= a\n\n= b').notes).toEqual([
      'Line 5: a second answer to the same question is left out. Put --- between two questions.',
    ])
    expect(one('Q <script>x</script>\n\n<div>no</div>\n\n= a').notes.at(-1)).toMatch(/Line 3: HTML is not read/)
  })
})

describe('hostile files', () => {
  const bomb = `<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b "xxxxxxxxxx"><!ENTITY c "&b;&b;&b;&b;&b;&b;">]><assessmentItem>&c;</assessmentItem>`
  const climbing = zipSync({ '../../etc/passwd': bytes('x') })
  const cases: [string, Uint8Array, string, RegExp][] = [
    [
      'broken XML',
      bytes('<assessmentItem><itemBody></assessmentItem>'),
      'a.xml',
      /This XML is broken|no assessment item/,
    ],
    ['an entity bomb', bytes(bomb), 'a.xml', /entities of its own/],
    [
      'an outside entity',
      bytes('<!DOCTYPE a SYSTEM "file:///etc/passwd" [<!ENTITY x SYSTEM "file:///etc/passwd">]><a>&x;</a>'),
      'a.xml',
      /entities of its own/,
    ],
    ['XML without end', bytes('<a>'.repeat(5000)), 'a.xml', /too large or too deep/],
    ['a path that climbs out', climbing, 'a.zip', /climbs out/],
    [
      'a zip bomb',
      zipSync({ 'a.xml': new Uint8Array(60 * 1024 * 1024) }, { level: 9 }),
      'a.zip',
      /grow beyond all measure/,
    ],
    ['a broken archive', new Uint8Array([0x50, 0x4b, 3, 4, 1, 2, 3]), 'a.zip', /not a zip archive|no assessment item/],
    ['bytes that are nothing', new Uint8Array([0, 1, 2, 3, 0, 0]), 'a.bin', /none of the formats/],
    ['JSON that is a list', bytes('[]'), 'a.json', /not a file of questions/],
    ['JSON of another sort', bytes('{"a":1}'), 'a.json', /not a file of questions/],
    ['a later version', bytes('{"format":"thistle-questions","version":9,"questions":[]}'), 'a.json', /version 9/],
    ['CSV without its columns', bytes('question,kindness\nx,y'), 'a.csv', /./],
  ]
  it.each(cases)('%s is told in a sentence, or reads as nothing', async (_name, file, name, sentence) => {
    try {
      const { items } = await readFile(file, name)
      expect(items.every((item) => item.problem !== null)).toBe(true)
      expect(items.map((item) => item.problem).join(' ')).toMatch(sentence)
    } catch (error) {
      expect(error).toBeInstanceOf(UnreadableFile)
      expect((error as Error).message).toMatch(sentence)
    }
  })
})
