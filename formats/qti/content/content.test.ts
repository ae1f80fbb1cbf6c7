import { expect, it } from 'vitest'
import { document, element, readXml } from '../../xml'
import { blocksOf } from './read'
import { contentNodes } from './write'

const there = (html: string) => document(element('div', {}, contentNodes(html)))
const back = (xml: string) => {
  const notes = new Set<string>()
  return [blocksOf(readXml(xml).children, { notes }), [...notes]]
}

it.each([
  '<p>Plain, <strong>bold</strong>, <em>slanted</em>, <u>underlined</u> and <s>struck <u>twice</u></s>.</p>',
  '<p>In <span lang="fr">français</span></p>',
  '<ul><li>One</li><li>two</li></ul><p>After</p>',
  '<table><tbody><tr><th scope="row">a</th><td colspan="2">b</td></tr></tbody></table>',
  '<pre><code>a\n  b</code></pre>',
])('%s comes back as it went', (html) => expect(back(there(html))).toEqual([html, []]))

it('what is underlined or struck is a span with a class, as XHTML of items has no elements for it', () =>
  expect(there('<p><u>a</u><s>b</s></p>')).toContain(
    '<p><span class="underline">a</span><span class="line-through">b</span></p>',
  ))

it('classes of 3.0 are read with the mark before them', () =>
  expect(back('<div><p>An <span class="big qti-underline">old</span> tale</p></div>')).toEqual([
    '<p>An <u>old</u> tale</p>',
    [],
  ]))
