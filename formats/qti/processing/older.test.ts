/**
 * Conditions and outcomes of QTI 1.2 as tables of cases: IMS Question & Test Interoperability, ASI information model 1.2 §3.5 to
 * §3.8, worked by hand from the definitions there, from memory.
 */
import { describe, expect, it } from 'vitest'
import { readXml } from '../../xml'
import { NotProven, type Responses } from '.'
import { olderProcessingOf } from './older'

const asked = `<response_lid ident="one" rcardinality="Single"/><response_lid ident="many" rcardinality="Multiple"/>
<response_lid ident="order" rcardinality="Ordered"/><response_str ident="text"><render_fib/></response_str>
<response_num ident="num"><render_fib fibtype="Decimal"/></response_num>
<response_str ident="field"><render_fib fibtype="Integer"/></response_str>`
const run = (processing: string, responses: Responses, score = '<decvar varname="SCORE" defaultval="0"/>') =>
  olderProcessingOf(
    readXml(
      `<item><presentation>${asked}</presentation><resprocessing><outcomes>${score}</outcomes>${processing}</resprocessing></item>`,
    ),
  )(responses)
const when = (condition: string, then: string, goesOn = 'No') =>
  `<respcondition continue="${goesOn}"><conditionvar>${condition}</conditionvar>${then}</respcondition>`
const set = (value: number | string, action = 'Set') => `<setvar action="${action}" varname="SCORE">${value}</setvar>`
const is = (name: string, value: string, more = '') => `<varequal respident="${name}"${more}>${value}</varequal>`
const size = (test: string, value: number) => `<${test} respident="num">${value}</${test}>`

describe('conditions', () => {
  it.each<[string, string, Responses, boolean]>([
    ['the chosen one', is('one', 'a'), { one: ['a'] }, true],
    ['another one', is('one', 'a'), { one: ['b'] }, false],
    ['nothing', is('one', 'a'), { one: [] }, false],
    ['not, of nothing: there is no NULL', `<not>${is('one', 'a')}</not>`, { one: [] }, true],
    ['one of several', is('many', 'a'), { many: ['b', 'a'] }, true],
    ['all of several', is('many', 'a') + is('many', 'b'), { many: ['b', 'a', 'c'] }, true],
    ['all of several, one lacking', is('many', 'a') + is('many', 'b'), { many: ['a'] }, false],
    ['these and not that', `<and>${is('many', 'a')}<not>${is('many', 'c')}</not></and>`, { many: ['a', 'c'] }, false],
    ['either', `<or>${is('one', 'a')}${is('one', 'b')}</or>`, { one: ['b'] }, true],
    ['an order', is('order', 'a') + is('order', 'b'), { order: ['a', 'b'] }, true],
    ['another order', is('order', 'a') + is('order', 'b'), { order: ['b', 'a'] }, false],
    ['an order that goes on', is('order', 'a') + is('order', 'b'), { order: ['a', 'b', 'c'] }, false],
    ['a place of an order', is('order', 'b', ' index="2"'), { order: ['a', 'b', 'c'] }, true],
    ['a text, whatever its case', is('text', 'Ebb'), { text: ['eBB'] }, true],
    ['a text in its case', is('text', 'Ebb', ' case="Yes"'), { text: ['ebb'] }, false],
    ['a text with blanks around', is('text', ' ebb '), { text: ['ebb'] }, true],
    ['part of a text', '<varsubstring respident="text">bb</varsubstring>', { text: ['an ebb'] }, true],
    ['a number, however written', is('num', '4'), { num: ['4.0'] }, true],
    ['a number in a field of words', is('field', '4'), { field: ['4.00'] }, true],
    ['at least', size('vargte', 4), { num: ['4'] }, true],
    ['more than', size('vargt', 4), { num: ['4'] }, false],
    ['at most', size('varlte', 4), { num: ['4'] }, true],
    ['less than', size('varlt', 4), { num: ['3.999'] }, true],
    ['between, of nothing', size('vargte', 3) + size('varlte', 5), { num: [] }, false],
    ['unanswered', '<unanswered respident="text"/>', { text: [] }, true],
    ['answered', '<unanswered respident="text"/>', { text: ['x'] }, false],
  ])('%s', (_name, condition, responses, holds) => {
    expect(run(when(condition, set(1)), responses).score!.equals(holds ? 1 : 0)).toBe(true)
  })
})

describe('outcomes', () => {
  const a = is('many', 'a')
  const b = is('many', 'b')
  const c = is('many', 'c')
  it.each<[string, string, string[], number, string?]>([
    ['the first that holds ends', when(a, set(2)) + when(b, set(1)), ['a', 'b'], 2],
    ['unless it goes on', when(a, set(2), 'Yes') + when(b, set(1)), ['a', 'b'], 1],
    ['adding', when(a, set(2, 'Add'), 'Yes') + when(b, set(1.5, 'Add')), ['a', 'b'], 3.5],
    ['taking away', when(a, set(2)) + when(b, set(1, 'Subtract')), ['b'], -1],
    ['times', when(a, set(2), 'Yes') + when(b, set(3, 'Multiply')), ['a', 'b'], 6],
    ['divided', when(a, set(3), 'Yes') + when(b, set(2, 'Divide')), ['a', 'b'], 1.5],
    ['what it begins with', when(a, set(2, 'Add')), ['a'], 3, '<decvar varname="SCORE" defaultval="1"/>'],
    ['not below its least', when(a, set(-2)), ['a'], 0, '<decvar varname="SCORE" minvalue="0"/>'],
    ['not above its most', when(a, set(9)), ['a'], 4, '<decvar varname="SCORE" maxvalue="4"/>'],
    ['other: none before', when(a, set(2), 'Yes') + when('<other/>', set(-1)), ['a'], 2],
    ['other: all of them', when(a, set(2), 'Yes') + when('<other/>', set(-1)), ['b'], -1],
    ['the only one, by another name', when(a, '<setvar varname="que">2</setvar>'), ['a'], 2, '<decvar varname="que"/>'],
    ['without a name', when(a, '<setvar>2</setvar>'), ['a'], 2, '<decvar/>'],
    ['no condition at all', `<respcondition>${set(1)}</respcondition>`, [], 1],
    [
      'bounds that matter neither at each step nor at the end',
      when(a, set(1, 'Add'), 'Yes') + when(c, set(5, 'Subtract')),
      ['a', 'c'],
      0,
      '<decvar varname="SCORE" minvalue="0"/>',
    ],
  ])('%s', (_name, processing, many, expected, score) => {
    expect(run(processing, { many }, score).score!.valueOf()).toBe(expected)
  })
  it('names of feedback, of all that held', () => {
    const show = (name: string) => `<displayfeedback linkrefid="${name}"/>`
    const found = run(when(a, show('x'), 'Yes') + when(b, show('y')) + when(c, show('z')), { many: ['a', 'b', 'c'] })
    expect(found.named('FEEDBACK')).toEqual(['x', 'y'])
  })
})

describe('what it does not know, or nobody can', () => {
  it.each<[string, string, Responses, string?]>([
    ['a test of no name', when('<varnear respident="one">a</varnear>', set(1)), { one: ['a'] }],
    ['a subset, which is read both ways', when('<varsubset respident="many">a,b</varsubset>', set(1)), { many: ['a'] }],
    ['two values of what has one', when(is('text', 'ebb') + is('text', 'low tide'), set(1)), { text: ['ebb'] }],
    ['a response that is not there', when(is('none', 'a'), set(1)), {}],
    ['a score that is no number', when(is('one', 'a'), set('two')), { one: ['a'] }],
    ['several outcomes, none SCORE', when(is('one', 'a'), set(1)), {}, '<decvar varname="A"/><decvar varname="B"/>'],
    ['an extension', '<respcond_extension/>', {}],
    ['several turned round', when(`<not>${is('one', 'a')}${is('one', 'b')}</not>`, set(1)), { one: ['a'] }],
    [
      'bounds that matter only at each step',
      when(is('many', 'a'), set(1, 'Subtract'), 'Yes') + when(is('many', 'b'), set(1, 'Add')),
      { many: ['a', 'b'] },
      '<decvar varname="SCORE" minvalue="0"/>',
    ],
  ])('%s', (_name, processing, responses, score) => {
    expect(() => run(processing, responses, score)).toThrow(NotProven)
  })
  it('processing that is longer than anybody writes', () => {
    const long = `<or>${is('one', 'z').repeat(2000)}</or>`
    const xml = `<item><presentation>${asked}</presentation><resprocessing>${when(long, set(1))}</resprocessing></item>`
    const processing = olderProcessingOf(readXml(xml))
    expect(() => {
      for (let i = 0; i < 2000; i++) processing({ one: ['a'] })
    }).toThrow(NotProven)
  })
})
