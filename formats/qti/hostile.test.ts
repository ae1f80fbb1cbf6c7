import { describe, expect, it } from 'vitest'
import {
  base,
  choices,
  choosing,
  correct,
  declare,
  entry,
  itemXml,
  matches,
  rules,
  score,
  set,
  template,
  variable,
  when,
} from '../../tests/support/qti'
import { readPackage } from './package/read'

/** Items whose processing is made to grow without end, or that name what every object of the language has. */
const choice = (processing: string) =>
  itemXml(declare('single', 'identifier', correct('A')), choosing(choices({ A: 'a', B: 'b' })), processing)
const number = (processing: string, key = '4') =>
  itemXml(declare('single', 'float', correct(key)), `<p>Q ${entry()}</p>`, processing)
const times = (n: number, rule: string) => rules(...Array.from({ length: n }, () => rule))
const nested = (n: number, around: (inner: string) => string, inmost: string) =>
  Array.from({ length: n }).reduce<string>(around, inmost)

const read = (xml: string) => readPackage(new TextEncoder().encode(xml)).items[0]!

describe('an item that is made to grow', () => {
  it.each([
    [
      'a score multiplied with itself',
      choice(
        rules(
          set(base('float', 10)),
          ...Array.from({ length: 40 }, () => set(`<product>${variable('SCORE')}${variable('SCORE')}</product>`)),
        ),
      ),
      'It computes with numbers that are too long.',
    ],
    [
      'powers of powers',
      choice(rules(set(nested(6, (x) => `<power>${x}${base('float', 1000)}</power>`, base('float', 10))))),
      'It computes with numbers that are too long.',
    ],
    [
      'a long product',
      choice(rules(set(`<product>${base('float', '1e300').repeat(400)}</product>`))),
      'It computes with numbers that are too long.',
    ],
    [
      'a number without end',
      choice(rules(set(base('float', '7'.repeat(100_000))))),
      `“${'7'.repeat(40)}” stands where a number has to be.`,
    ],
    [
      'values repeated and repeated',
      choice(
        rules(
          set(
            `<containerSize>${nested(5, (x) => `<repeat numberRepeats="1000">${x}</repeat>`, base('integer', 1))}</containerSize>`,
          ),
        ),
      ),
      'It computes with too many values at once.',
    ],
    [
      'a great many rules',
      number(
        times(30_000, `<setOutcomeValue identifier="SCORE"><sum>${base('float', 1).repeat(4)}</sum></setOutcomeValue>`),
      ),
      'Its processing is too long to be tried.',
    ],
  ])('%s is read and not proven', (_, xml, reason) => {
    expect(read(xml).proof).toMatchObject({ state: 'open', reason })
  })

  it.each([
    [
      'a bound set forty times',
      choice(times(40, when([matches(), set(`<max>${variable('SCORE')}${base('float', 1)}</max>`)]))),
    ],
    [
      'a product in forty branches',
      choice(
        rules(
          when([matches(), score(1)]),
          ...Array.from({ length: 40 }, () =>
            when([matches(), set(`<product>${variable('SCORE')}${base('float', 1)}</product>`)]),
          ),
        ),
      ),
    ],
  ])('%s is proven all the same', (_, xml) => {
    expect(read(xml).proof).toMatchObject({ state: 'proven' })
  })

  it('reads what is taken away step by step as one sum', () => {
    const less = when([
      `<not>${matches()}</not>`,
      set(`<subtract>${variable('SCORE')}${base('float', 0.01)}</subtract>`),
    ])
    const found = read(choice(rules(when([matches(), score(1)]), ...Array.from({ length: 26 }, () => less))))
    expect(found.question).toMatchObject({ kind: 'choice' })
    expect(found.proof).toMatchObject({ state: 'proven' })
  })
})

describe('names that every object has', () => {
  it.each([
    ['an expression', number(rules(when([`<constructor>${variable()}${base('float', 1)}</constructor>`, score(1)])))],
    [
      'part of a range',
      number(
        rules(
          when([`<and><toString>${variable()}</toString><gt>${variable()}${base('float', 1)}</gt></and>`, score(1)]),
        ),
      ),
    ],
    ['a template of scoring', choice('<responseProcessing template="constructor"/>')],
    ['a key that is a computation', number(template('match_correct'), '{=2+3}')],
  ])('%s is not proven', (_, xml) => {
    expect(read(xml).proof).toMatchObject({ state: 'open' })
  })

  it('an expression of a template is told as what is not read', () => {
    const value = '<setTemplateValue identifier="A"><constructor/></setTemplateValue>'
    const xml = number(template('match_correct')).replace(
      '<itemBody>',
      `<templateDeclaration identifier="A" cardinality="single" baseType="integer"/><templateProcessing>${value}</templateProcessing><itemBody>`,
    )
    expect(read(xml).problem).toBe('Its template: The expression “constructor” has no like here.')
  })
})
