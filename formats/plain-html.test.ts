import { expect, it } from 'vitest'
import { plainText } from '../core/question'
import { asHtml, asPlain } from './plain-html'

it('lines of a cell become paragraphs; what holds a tag stays', () => {
  expect(asHtml('One\ntwo\n\nthree & four')).toBe('<p>One<br>two</p><p>three &amp; four</p>')
  expect(asHtml(' <p>One</p> ')).toBe('<p>One</p>')
  expect(asHtml('')).toBe('')
})

it('signs of comparison are no tags', () => {
  expect(asHtml('3 < 4 and 5 > 4')).toBe('<p>3 &lt; 4 and 5 &gt; 4</p>')
  expect(asHtml('<!-- a note -->')).toBe('<p>&lt;!-- a note --&gt;</p>')
})

it.each([
  ['<p>Plain</p>', 'Plain'],
  ['<p>Fish &amp; chips &lt; 5</p>', 'Fish & chips < 5'],
  ['<p>a&#x3c;b&gt;c &amp;lt; d</p>', '<p>a&#x3c;b&gt;c &amp;lt; d</p>'],
  ['<p>été&nbsp;!</p>', 'été\u00a0!'],
  ['<p class="x">Kept</p>', '<p class="x">Kept</p>'],
  ['<p>One</p><p>two</p>', '<p>One</p><p>two</p>'],
  ['<p>With <b>bold</b></p>', '<p>With <b>bold</b></p>'],
  ['&lt;b&gt;', '<p>&lt;b&gt;</p>'],
  [' spaced ', '<p> spaced </p>'],
  ['', ''],
])('%s in a cell, and back to the same words', (html, cell) => {
  expect(asPlain(html)).toBe(cell)
  expect(plainText(asHtml(cell))).toBe(plainText(html))
})
