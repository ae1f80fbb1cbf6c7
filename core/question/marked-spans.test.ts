import { describe, expect, it } from 'vitest'
import { markedSpans, withSpans } from './marked-spans'

describe('marked stretches of a text', () => {
  it.each([
    ['plain words', '<p>a <span data-gap="g1">b</span> c</p>', '<p>a [g1] c</p>'],
    [
      'maths, and words behind it',
      '<p><span data-gap="g1">b <span><span>k</span></span> x</span> c</p>',
      '<p>[g1] c</p>',
    ],
    ['void tags', '<p><span data-gap="g1">b <img src="x"> x<br></span> c</p>', '<p>[g1] c</p>'],
    ['two', '<p><span data-gap="g1">b</span>, <span data-gap="g2">c</span></p>', '<p>[g1], [g2]</p>'],
    ['one within another', '<span data-gap="g1">b <span data-gap="g2">c</span> d</span> e', '[g1] e'],
    ['a mark that is not closed', '<p>a <span data-gap="g1">b c</p><p>d</p>', '<p>a [g1]</p><p>d</p>'],
    ['a mark that is closed nowhere', '<p>a <span data-gap="g1">b c', '<p>a [g1]'],
    ['a “>” in an attribute', `a <span title=">" data-gap='g1'>b</span> c`, 'a [g1] c'],
    ['no quotes', 'a <span data-gap=g1>b</span> c', 'a [g1] c'],
    ['capitals', 'a <SPAN DATA-GAP="g1">b</SPAN> c', 'a [g1] c'],
    ['another tag than a span', 'a <em data-gap="g1">b</em> c', 'a [g1] c'],
  ])('%s', (_name, source, result) => {
    expect(withSpans(source, 'data-gap', ({ mark }) => `[${mark}]`)).toBe(result)
  })
  it('a mark is read with its entities, its tag stays as it is written', () => {
    expect(markedSpans('x <span data-latex="a &lt; b">y</span>', 'data-latex')).toEqual([
      { mark: 'a < b', from: 2, to: 38, opening: '<span data-latex="a &lt; b">', inside: 'y' },
    ])
  })
})
