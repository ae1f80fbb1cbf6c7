/** Word processors' files, made by hand as they write them: what is marked is the key, what is not read is told. */
import { describe, expect, it } from 'vitest'
import {
  box,
  docx,
  entry,
  equation,
  footnoteMark,
  heading,
  paragraph,
  picture,
  run,
  table,
} from '../../tests/support/docx'
import { kindOf } from '../../core/question'
import { digestOf } from '../bundle'
import { readDocx } from './docx'
import { questionsFromHtml } from './html'

const read = async (body: string, media?: ReadonlyMap<string, Uint8Array>) => readDocx(docx(body, media))
const said = ({ problem, question }: Awaited<ReturnType<typeof read>>['items'][number]) =>
  problem ?? `${question!.kind}: ${kindOf(question!.kind).keyText(question!.body as never)}`
const asked = paragraph(run('What falls?'))

describe('a key', () => {
  it.each<[string, string, string | RegExp]>([
    ['one in bold', entry(run('ebb', true), 1) + entry(run('flood'), 1), 'choice: ebb'],
    [
      'several in bold',
      entry(run('ebb', true), 1) + entry(run('slack', true), 1) + entry(run('flood'), 1),
      'choices: ebb · slack',
    ],
    [
      'a word in bold is no mark',
      entry(run('the ') + run('ebb', true), 1) + entry(run('flood', true), 1),
      'choice: flood',
    ],
    ['ticks', entry(run('☐ ebb'), 1) + entry(run('☑ flood'), 1), 'choice: flood'],
    ['ticks of letters', entry(run('[x] ebb'), 1) + entry(run('[ ] flood'), 1), 'choice: ebb'],
    ['boxes of a form', entry(box(false) + run(' ebb'), 1) + entry(box(true) + run(' flood'), 1), 'choice: flood'],
    ['none', entry(run('ebb'), 1) + entry(run('flood'), 1), /Nothing says which of its options is right/],
    ['all', entry(run('ebb', true), 1) + entry(run('flood', true), 1), /All of its options are bold/],
    [
      'numbers without a mark',
      entry(run('ebb'), 2) + entry(run('flood'), 2),
      /Nothing says which of its options is right/,
    ],
    ['numbers with a mark', entry(run('ebb'), 2) + entry(run('flood', true), 2), 'choice: flood'],
    [
      'a table',
      table([
        [run('Port'), run('red')],
        [run('Starboard'), run('green')],
      ]),
      /If the table is a matching, say so/,
    ],
    [
      'a table with a heading',
      table([
        [run('Side', true), run('Light', true)],
        [run('Port'), run('red')],
        [run('Starboard'), run('green')],
      ]) + paragraph(run('Answer: in these pairs')),
      'matching: Port – red · Starboard – green',
    ],
    ['a number', paragraph(run('= 3.9 ± 0.1 m')), 'number: 3.9 ± 0.1 m'],
    ['a text', paragraph(run('= ebb | ebb tide')), 'text: ebb or ebb tide'],
    ['a number that is two', paragraph(run('= 1,000')), /can be read in two ways/],
    ['nothing', paragraph(run('It rains.')), /There is no answer/],
  ])('%s', async (_name, body, expected) => {
    const { items } = await read(asked + body)
    expect(items).toHaveLength(1)
    if (typeof expected === 'string') expect(said(items[0]!)).toBe(expected)
    else expect(said(items[0]!)).toMatch(expected)
  })
})

describe('a document', () => {
  it('has folders by its headings, also where a level is missing, and questions one after another', async () => {
    const list = entry(run('ebb', true), 1) + entry(run('flood'), 1)
    const { items } = await read(
      heading(2, 'Springs') +
        asked +
        list +
        heading(2, 'Neaps') +
        paragraph(run('And now?')) +
        list +
        heading(1, 'Lights') +
        asked +
        list,
    )
    expect(items.map(({ folder, question }) => [folder, question!.stem])).toEqual([
      [['Springs'], '<p>What falls?</p>'],
      [['Neaps'], '<p>And now?</p>'],
      [['Lights'], '<p>What falls?</p>'],
    ])
  })
  it('may be a list of questions, each with its options beneath it', async () => {
    const { items } = await read(
      entry(run('What falls?'), 2) +
        entry(run('ebb', true), 2, 1) +
        entry(run('flood'), 2, 1) +
        entry(run('What rises?'), 2) +
        entry(run('ebb'), 2, 1) +
        entry(run('flood', true), 2, 1),
    )
    expect(items.map((item) => [item.question?.stem, said(item)])).toEqual([
      ['<p>What falls?</p>', 'choice: ebb'],
      ['<p>What rises?</p>', 'choice: flood'],
    ])
  })
  it('brings its pictures, with what is said of them', async () => {
    const bytes = Uint8Array.from([137, 80, 78, 71])
    const { items, media } = await read(
      paragraph(run('What is this?') + picture('p.png')) + paragraph(run('= buoy')),
      new Map([['p.png', bytes]]),
    )
    const digest = digestOf(bytes)
    expect([...media.keys()]).toEqual([digest])
    expect(items[0]!.question!.stem).toBe(`<p>What is this?<img alt="A buoy" src="/api/media/${digest}"></p>`)
  })
  it('has equations and footnotes, which are told where they stood; a list of footnotes is no question', async () => {
    const { items } = await read(
      paragraph(run('What is ') + equation('x²') + run(' for 2?') + footnoteMark) +
        paragraph(run('= 4')) +
        asked +
        paragraph(run('= ebb')),
    )
    expect(items.map(({ problem, notes }) => [problem, notes])).toEqual([
      [
        null,
        ['An equation of it is not read. Write it anew where [equation] stands.', 'A footnote of it is left out.'],
      ],
      [null, []],
    ])
    expect(items[0]!.question!.stem).toContain('What is [equation] for 2?')
  })
  it('that is broken, or grows beyond bounds, is told', async () => {
    const whole = docx(asked)
    await expect(readDocx(whole.slice(0, 300))).rejects.toThrow(/cannot be read|not a zip/)
    await expect(read('<w:p><w:r>')).rejects.toThrow(/cannot be read/)
  })
})

describe('what is pasted', () => {
  it('may be open: options without a mark are a choice without a key, for whoever goes on writing', () => {
    const html = '<p>What falls?</p><ul><li>ebb</li><li>flood</li></ul>'
    expect(questionsFromHtml(html)[0]!.problem).toMatch(/Nothing says which of its options is right/)
    expect(questionsFromHtml(html, true)[0]!.question!.kind).toBe('choice')
  })
  it('is markup of any kind', () => {
    for (const html of ['', '<', '<ul>', '<table><tr><td>', '<li>a', '<p>= </p>', '<ol><li><ol><li>'.repeat(50)])
      expect(() => questionsFromHtml(html, true)).not.toThrow()
  })
})
