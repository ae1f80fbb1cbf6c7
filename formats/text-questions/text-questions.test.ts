/** Questions as people type them, in a document, pasted, or as plain text: what is right is read where a line says so, or asked back. */
import { describe, expect, it } from 'vitest'
import { kindOf } from '../../core/question'
import type { BundleItem } from '../bundle'
import { questionsFromHtml } from '../document/html'
import { readMarkdown } from '../markdown/read'
import { keyLineOf, keyOfAllIn, optionsInKey, pairsIn } from './key-lines'
import { asksForOrder, asksForPairs } from './asked-for'

const said = ({ problem, question }: BundleItem) =>
  problem ??
  `${question!.stem.replace(/<[^>]+>/g, ' ').trim()} | ${question!.kind}: ${kindOf(question!.kind).keyText(question!.body as never)}`
const markdown = (source: string) => readMarkdown(source).items.map(said)
const document = (html: string) => questionsFromHtml(html).map(said)
/** A text as a word processor has it: each line a paragraph. */
const lines = (text: string) =>
  document(
    text
      .split('\n')
      .map((line) => `<p>${line}</p>`)
      .join(''),
  )

describe('a key line', () => {
  it.each([
    ['Answer: B', 'B'],
    ['ANSWER: b)', 'b)'],
    ['Answer B', 'B'],
    ['Ans. (c)', '(c)'],
    ['Ans: C', 'C'],
    ['Correct answer: flood', 'flood'],
    ['The correct answer is B', 'B'],
    ['The answers are: A, C', 'A, C'],
    ['Key: B', 'B'],
    ['Solution – 42 m', '42 m'],
    ['Antwort: B', 'B'],
    ['= ebb', 'ebb'],
  ])('%s', (line, says) => expect(keyLineOf(line)?.says).toBe(says))
  it.each([
    'Answer the question.',
    'Answers to letters were slow',
    'Key words are in bold',
    'The correct option depends on the tide',
    'Right of way: who has it?',
    'Ansgar: who was he?',
    '== so',
    'Answer:',
  ])('“%s” is none', (line) => expect(keyLineOf(line)).toBe(null))
})

describe('options that a key names', () => {
  const options = ['ebb', 'flood', 'slack', 'Both']
  it.each([
    ['B', [1]],
    ['(b)', [1]],
    ['b.', [1]],
    ['B) flood', [1]],
    ['flood', [1]],
    ['FLOOD.', [1]],
    ['A, C', [0, 2]],
    ['A and C', [0, 2]],
    ['AC', [0, 2]],
    ['both', [3]],
    ['ebb; slack', [0, 2]],
  ])('%s', (says, at) => expect(optionsInKey(says, options, false)).toEqual({ at, either: false }))
  it('either of two, and numbers where they are numbered', () => {
    expect(optionsInKey('B or C', options, false)).toEqual({ at: [1, 2], either: true })
    expect(optionsInKey('2', options, true)).toEqual({ at: [1], either: false })
    expect(optionsInKey('2', options, false)).toBe(null)
    expect(optionsInKey('spring', options, false)).toBe(null)
  })
  it('what is not there, or reads as another, is asked back', () => {
    expect(() => optionsInKey('E', options, false)).toThrow(/only 4 options \(A to D\)/)
    expect(() => optionsInKey('B) ebb', options, false)).toThrow(/option B reads “flood”/)
    expect(() => optionsInKey('B', ['B', 'A'], false)).toThrow(/letter of one option and the text of another/)
    expect(() => optionsInKey('A, A', options, false)).toThrow(/twice/)
  })
})

describe('the key of all', () => {
  it('is many pairs of a number and a letter', () => {
    expect([...keyOfAllIn('Key: 1 B 2 D 3. A, C 4) true')!]).toEqual([
      [1, 'B'],
      [2, 'D'],
      [3, 'A, C'],
      [4, 'true'],
    ])
    expect(keyOfAllIn('Answer: 5 m')).toBe(null)
    expect(pairsIn('1 B and then some')).toBe(null)
    expect(pairsIn('1 B 1 C')).toBe(null)
  })
})

describe('what a question asks for', () => {
  it.each([
    'Put these in the right order.',
    'Order the tides:',
    'Arrange from smallest to largest.',
    'In Reihenfolge?',
  ])('an order: %s', (words) => expect(asksForOrder(words)).toBe(true))
  it.each(['In which order do lights show?', 'What is an order of magnitude?', 'Who gives the order to sail?'])(
    'no order: %s',
    (words) => expect(asksForOrder(words)).toBe(false),
  )
  it('pairs', () => {
    expect(asksForPairs('Match each side with its light.')).toBe(true)
    expect(asksForPairs('How high is the tide at noon?')).toBe(false)
  })
})

const typed = `1. What falls?
A) ebb
B) flood
Answer: A
2. What rises?
a. ebb
b. flood
Ans. (b)`
const keyed = ['What falls? | choice: ebb', 'What rises? | choice: flood']

describe('questions typed one after another', () => {
  it('as plain text, in a document, and as a document’s lists', () => {
    expect(markdown(typed)).toEqual(keyed)
    expect(lines(typed)).toEqual(keyed)
    expect(
      document(
        '<ol><li>What falls?<ol><li>ebb</li><li>flood</li></ol></li></ol><p>Answer: A</p><ol><li>What rises?</li></ol><ol><li>ebb</li><li>flood</li></ol><p>Answer: B</p>',
      ),
    ).toEqual(keyed)
    expect(
      document(
        '<p>What falls?</p><ol><li>ebb</li><li>flood</li></ol><p><strong>Answer: A</strong></p><p>What rises?</p><p>A) ebb<br>B) flood<br>Key: B</p>',
      ),
    ).toEqual(keyed)
  })
  it('with their options in one line, or without numbers', () => {
    expect(markdown('What falls?\nA) ebb  B) flood  C) slack\nAnswer: A')).toEqual(['What falls? | choice: ebb'])
    expect(
      lines('What falls?\n(a) ebb\n(b) flood\nCorrect answer: ebb\nWhat rises?\n(a) ebb\n(b) flood\nAnswer: flood'),
    ).toEqual(keyed)
  })
  it('with the key of all at the end', () => {
    const bare = typed.replace(/\n(?:Answer|Ans).*/g, '')
    for (const key of ['Key: 1 A 2 B', 'Answer key\n1. A\n2. B', 'Answers: 1-A, 2-B', 'Answers\n1 A 2 B']) {
      expect(markdown(`${bare}\n\n${key}`)).toEqual(keyed)
      expect(lines(`${bare}\n${key}`)).toEqual(keyed)
    }
    expect(
      markdown(
        `What falls?\n\n- ebb\n- flood\n\n---\n\nWhat rises?\n\n- ebb\n- flood\n\n---\n\n# Answer key\n\n1. A\n2. B`,
      ),
    ).toEqual(keyed)
    expect(readMarkdown(`${bare}\n\nKey: 1 A 2 B 3 C`).items.at(-1)!.notes.join()).toMatch(
      /names question 3, which is not here/,
    )
  })
  it('with a key for each chapter, each beginning at 1', () => {
    const chapter = (a: string, b: string, key: string) =>
      `1. ${a}?\nA) ebb\nB) flood\n2. ${b}?\nA) ebb\nB) flood\n\n${key}\n`
    const text = `# One\n\n${chapter('What falls', 'What rises', 'Key: 1 A 2 B')}\n# Two\n\n${chapter('What comes', 'What goes', 'Key: 1 B 2 A')}`
    expect(markdown(text)).toEqual([...keyed, 'What comes? | choice: flood', 'What goes? | choice: ebb'])
  })
  it('with an explanation after the key, which is a comment and no part of what is asked', () => {
    const explained = 'What falls?\nA) ebb\nB) flood\nAnswer: A\nExplanation: the ebb is falling water.'
    for (const items of [
      readMarkdown(explained).items,
      questionsFromHtml(
        explained
          .split('\n')
          .map((line) => `<p>${line}</p>`)
          .join(''),
      ),
    ]) {
      expect(items.map(said)).toEqual(['What falls? | choice: ebb'])
      expect(items[0]!.question!.comments.general).toBe('<p>the ebb is falling water.</p>')
    }
    expect(readMarkdown('What falls?\n\n= ebb\n\nMore of it.').items[0]!.notes).toEqual([
      'What follows the answer is part of the question: “More of it.”. Begin it with “Explanation:” if it is a comment.',
    ])
  })
  it('one without a key swallows none of those after it, and each is told at its line', () => {
    const text = '1. What falls?\nA) ebb\nB) flood\n2. What rises?\nA) ebb\nB) flood\nAnswer: B\n\nHow far?\n\n= 6\n'
    const { items } = readMarkdown(text)
    expect(items.map(({ place }) => place)).toEqual(['question 1, line 1', 'question 2, line 4', 'question 3, line 9'])
    expect(items[0]!.problem).toMatch(/Nothing says which/)
    expect(items.slice(1).map(said)).toEqual(['What rises? | choice: flood', 'How far? | number: 6'])
    expect(lines(text).slice(1)).toEqual(['What rises? | choice: flood', 'How far? | number: 6'])
  })
  it('a list within a question is told to be part of it', () => {
    expect(readMarkdown('Read:\n\n- ebb\n- flood\n\nHow many?\n\n= 2').items[0]!.notes).toEqual([
      'A list of it is part of the question: nothing says which of its entries is right.',
    ])
  })
  it('several right, either right, bold, ticks and stars', () => {
    const options = (a: string, b: string, c: string) => `What falls?\n${a}\n${b}\n${c}`
    expect(lines(options('A) ebb', 'B) flood', 'C) slack') + '\nAnswer: A, C')).toEqual([
      'What falls? | choices: ebb · slack',
    ])
    expect(lines(options('A) ebb', 'B) flood', 'C) slack') + '\nAnswer: A or C')).toEqual([
      'What falls? | choice: ebb · slack',
    ])
    expect(lines(options('A) ebb', '<strong>B) flood</strong>', 'C) slack'))).toEqual(['What falls? | choice: flood'])
    expect(lines(options('A) ebb', 'B) flood ✓', 'C) slack'))).toEqual(['What falls? | choice: flood'])
    expect(lines(options('A) ebb', '*B) flood', 'C) slack'))).toEqual(['What falls? | choice: flood'])
    expect(lines(options('A) ebb', 'B) flood (correct)', 'C) slack'))).toEqual(['What falls? | choice: flood'])
    expect(markdown('What falls?\n\n- **ebb**\n- flood')).toEqual(['What falls? | choice: ebb'])
  })
  it('marks and key that say different things are asked back', () => {
    expect(lines('What falls?\nA) <strong>ebb</strong>\nB) flood\nAnswer: B')[0]).toMatch(
      /other options are bold or ticked/,
    )
    expect(lines('What falls?\nA) ebb\nB) flood\nAnswer: C')[0]).toMatch(/only 2 options/)
    expect(lines('What falls?\nAnswer: B')[0]).toMatch(/no options stand above it/)
  })
  it('numbers and texts after a key word', () => {
    expect(lines('How long is a cable?\nAnswer: 185.2 m\nWhat falls?\nAnswer: ebb')).toEqual([
      'How long is a cable? | number: 185.2 m',
      'What falls? | text: ebb',
    ])
    expect(markdown('The sea is salt.\nAnswer: True')).toEqual(['The sea is salt. | trueFalse: True'])
  })
})

describe('an ordering', () => {
  const list = '1. ebb\n2. slack\n3. flood'
  it('only where the text says so', () => {
    expect(markdown(`Put them in the right order.\n\n${list}`)).toEqual([
      'Put them in the right order. | ordering: ebb → slack → flood',
    ])
    expect(markdown(`Which?\n\n${list}\n\nAnswer: in this order`)).toEqual(['Which? | ordering: ebb → slack → flood'])
    expect(markdown(`Put them in the right order.\n\n${list}\n\nAnswer: 3, 1, 2`)).toEqual([
      'Put them in the right order. | ordering: flood → ebb → slack',
    ])
    expect(markdown(`Which?\n\n${list}\n\nAnswer: 2`)).toEqual(['Which? | choice: slack'])
    expect(markdown(`Which?\n\n${list}\nAnswer: B`)).toEqual(['Which? | choice: slack'])
    expect(markdown(`Which?\n\n${list}`)[0]).toMatch(/Nothing says which/)
  })
})

describe('a table of two columns', () => {
  const table = '<table><tr><td>Port</td><td>red</td></tr><tr><td>Starboard</td><td>green</td></tr></table>'
  it('is a matching only where the text says so; else it is part of what is asked', () => {
    expect(document(`<p>Match the sides.</p>${table}`)).toEqual([
      'Match the sides. | matching: Port – red · Starboard – green',
    ])
    expect(document(`<p>See the table.</p>${table}<p>What is red?</p><p>Answer: Port</p>`)[0]).toMatch(
      /See the table.*What is red\? \| text: Port/,
    )
    expect(document(`<p>See the table.</p>${table}`)[0]).toMatch(/If the table is a matching, say so/)
  })
})

it('no letter of a text is lost, wherever its lines break', () => {
  expect(lines('A. Lincoln was who?\nAnswer: a president')).toEqual(['A. Lincoln was who? | text: a president'])
  expect(markdown('Read:\n\n- ebb\n- flood\n\nHow many are there?\n\n= 2')[0]).toMatch(
    /Read: *ebb *flood *How many are there\? \| number: 2/,
  )
  expect(lines('Tides, spring term\n1. What falls?\nA) ebb\nB) flood\nAnswer: A')[0]).toMatch(
    /Tides, spring term.*What falls\? \| choice: ebb/,
  )
})
