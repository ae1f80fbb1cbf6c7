import { describe, expect, it } from 'vitest'
import { Problem } from '../../problem'
import { cleanHtml, renderMaths, sheetWithMaths } from './clean-html'

const media = `/api/media/${'a'.repeat(64)}`

describe('cleaning', () => {
  it.each([
    ['<p onclick="x()">Hi</p>', '<p>Hi</p>'],
    ['<script>alert(1)</script>after', 'after'],
    ['<style>p{}</style>x', 'x'],
    ['<iframe src="https://x.example"></iframe>x', 'x'],
    ['<svg><script>x</script></svg>', ''],
    ['<a href="javascript:alert(1)">l</a>', '<a>l</a>'],
    ['<a href="JaVaScRiPt:alert(1)">l</a>', '<a>l</a>'],
    ['<a href="data:text/html,x">l</a>', '<a>l</a>'],
    ['<a href="//elsewhere.example">l</a>', '<a>l</a>'],
    ['<a href="https://tide.example/a.pdf" download="a.exe">l</a>', '<a href="https://tide.example/a.pdf">l</a>'],
    [
      '<a href="https://tide.example/a?b=1&amp;c=2" target="_blank" style="x">l</a>',
      '<a href="https://tide.example/a?b=1&amp;c=2">l</a>',
    ],
    ['<img src="https://elsewhere.example/x.png" alt="x">', ''],
    [
      `<img src="${media}" alt="A chart" width="200" onerror="x()" style="position:fixed">`,
      `<img src="${media}" alt="A chart" width="200" />`,
    ],
    ['<img src="/api/media/../../etc" alt="x">', ''],
    [`<a href="${media}" download="Tables.pdf">l</a>`, `<a href="${media}" download="Tables.pdf">l</a>`],
    ['<form action="/x"><input name="a"><button>b</button></form>', 'b'],
    ['<math><mtext></mtext></math>', ''],
    ['<object data="x"></object><embed src="x">', ''],
    ['<p style="color:red" class="x" id="y">t</p>', '<p>t</p>'],
    [
      '<table><tr><td colspan="2" onmouseover="x()">c</td></tr></table>',
      '<table><tr><td colspan="2">c</td></tr></table>',
    ],
    ['&lt;script&gt;', '&lt;script&gt;'],
    ['<p>unclosed', '<p>unclosed</p>'],
    [
      `<audio src="${media}" controls data-plays="2" autoplay></audio>`,
      `<audio src="${media}" controls data-plays="2"></audio>`,
    ],
    ['<audio src="https://x.example/a.mp3"></audio>', ''],
  ])('%s', (written, clean) => expect(cleanHtml(written)).toBe(clean))
  it('is done once and for all: what is clean stays as it is', () => {
    for (const html of [
      '<p>a <strong>b</strong></p>',
      `<img src="${media}" alt="x" />`,
      '<span data-type="inline-math" data-latex="\\frac{1}{2}"></span>',
      '<ul><li><p>x</p></li></ul>',
    ])
      expect(cleanHtml(cleanHtml(html))).toBe(cleanHtml(html))
  })
  it('drops rendered maths, and makes it anew from its TeX', () => {
    const written = '<p><span data-type="inline-math" data-latex="\\frac{1}{2}"></span></p>'
    const shown = renderMaths(written)
    expect(shown).toMatch(/<math.*katex-html/s)
    expect(cleanHtml(shown)).not.toContain('katex-html')
  })
})

describe('maths', () => {
  const span = (tex: string) => `<span data-type="inline-math" data-latex="${tex}"></span>`
  it.each(['\\frac{', '\\undefinedcommand', 'x^', '\\href{javascript:alert(1)}{x}'])(
    '%s cannot be read, or is not trusted',
    (tex) => {
      try {
        expect(renderMaths(span(tex))).not.toMatch(/href=.?javascript/i)
      } catch (error) {
        expect(error).toBeInstanceOf(Problem)
        expect((error as Problem).sentence).toMatch(/cannot be read/)
      }
    },
  )
  it('does not grow without bound', () =>
    expect(() => renderMaths(span('\\def\\a{\\b\\b}\\def\\b{\\c\\c}\\def\\c{\\a\\a}\\a'))).toThrow(Problem))
  it('what a paper computes is left until its values are there', () => {
    expect(renderMaths(span('{= a}'))).toBe(span('{= a}'))
    const sheet = sheetWithMaths({
      title: 't',
      intro: '',
      sections: [{ title: '', intro: span('x'), entries: [] }],
    } as never)
    expect(JSON.stringify(sheet)).toContain('katex')
  })
})
