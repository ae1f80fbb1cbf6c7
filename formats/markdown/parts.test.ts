import fc from 'fast-check'
import { fromMarkdown } from 'mdast-util-from-markdown'
import { gfmTableFromMarkdown } from 'mdast-util-gfm-table'
import { gfmTaskListItemFromMarkdown } from 'mdast-util-gfm-task-list-item'
import { gfmTable } from 'micromark-extension-gfm-table'
import { gfmTaskListItem } from 'micromark-extension-gfm-task-list-item'
import { expect, it } from 'vitest'
import { blocksOf } from './parts'

/** The whole text parsed at once: what the parts have to mean together. */
const atOnce = (source: string) =>
  fromMarkdown(source, {
    extensions: [gfmTable(), gfmTaskListItem()],
    mdastExtensions: [gfmTableFromMarkdown(), gfmTaskListItemFromMarkdown()],
  }).children

/** What stands where, without columns' offsets, which nobody reads. */
const seen = (blocks: unknown) =>
  JSON.parse(
    JSON.stringify(blocks, (name, value: unknown) => (name === 'offset' || name === 'column' ? undefined : value)),
  ) as unknown

const lines = [
  '',
  '',
  '',
  '---',
  '---',
  '---',
  '- - -',
  '***',
  ' ---',
  '   ---',
  '\t---',
  '- [x] this',
  '- [ ] that',
  '1. first',
  '  deeper',
  '> quoted',
  'words',
  '    code',
  '```',
  '~~~',
  '````',
  '``` js',
  '  ```',
  '# Folder',
  '===',
  '| a | b |',
  '|---|---|',
  '[a]: x',
  '<pre>',
  '<!-- note',
  '-->',
  '<div>',
  '`',
  '* * *',
  '\u00a0',
  '- ',
  '-',
  '\\---',
]

it('a text in parts means what it means at once, line by line', () => {
  const text = fc.array(
    fc.oneof({ weight: 4, arbitrary: fc.constantFrom(...lines) }, { weight: 1, arbitrary: fc.constant('\n---\n') }),
    {
      minLength: 60,
      maxLength: 420,
    },
  )
  let cut = 0
  fc.assert(
    fc.property(text, fc.constantFrom('\n', '\r\n', '\r'), fc.boolean(), (parts, end, plain) => {
      // Without what reaches far, so that most texts are cut.
      const source = parts
        .filter((line) => !plain || !/^\[a\]|<(?:pre|!)|`|~/.test(line))
        .join('\n')
        .replaceAll('\n', end)
      if (plain) cut++
      expect(seen(blocksOf(source))).toEqual(seen(atOnce(source.replace(/\r\n?/g, '\n'))))
    }),
    { numRuns: 150 },
  )
  expect(cut).toBeGreaterThan(30)
})

it('a space that does not break is no empty line: what follows underlines it', () => {
  for (const space of ['\u00a0', '\u2003', '\u3000']) {
    const source = [...Array.from({ length: 120 }, () => 'words'), '', space, '---', 'more', ''].join('\n')
    expect(seen(blocksOf(source))).toEqual(seen(atOnce(source)))
  }
})

it('takes time in proportion to its length', () => {
  const of = (questions: number) => {
    const source = 'Which one?\n\n- [x] this\n- [ ] that\n\n---\n\n'.repeat(questions)
    const began = performance.now()
    blocksOf(source)
    return performance.now() - began
  }
  of(200)
  expect(of(3000) / of(500)).toBeLessThan(18)
}, 60_000)
