import { Editor, type JSONContent } from '@tiptap/core'
import { describe, expect, it } from 'vitest'
import { extensions } from './extensions'
import { putIn } from './put-in'

const words = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] })
const open = (...content: JSONContent[]) =>
  new Editor({ element: null, extensions: extensions(false, () => undefined), content: { type: 'doc', content } })
const sound = { type: 'audio', attrs: { src: '/a' } }
const film = { type: 'video', attrs: { src: '/b' } }
const picture = { type: 'image', attrs: { src: '/c' } }
/** What stands in the text, in order: words as they are, all else by its type; an empty line is "". */
const seen = (editor: Editor) =>
  editor
    .getJSON()
    .content.map((node) =>
      node.type === 'paragraph'
        ? (node.content ?? []).map((each) => ('text' in each ? each.text : each.type)).join('')
        : node.type,
    )

describe('what is put into a text', () => {
  it.each([
    ['at its end', 8],
    ['amid its words', 3],
  ])('stands one behind the other: %s', (_, at) => {
    const editor = open(words('A bell.'))
    editor.commands.setTextSelection(at)
    for (const each of [sound, film, picture]) putIn(editor, [each])
    editor.commands.insertContent({ type: 'text', text: 'Next' })
    expect(seen(editor).filter((each) => ['audio', 'video', 'image'].includes(each!))).toEqual([
      'audio',
      'video',
      'image',
    ])
    const all = seen(editor).join('|')
    expect(all).toContain('Next')
    expect(all.replace('Next', '').replaceAll(/\||audio|video|image/g, '')).toBe('A bell.')
    expect(all.indexOf('Next')).toBeGreaterThan(all.indexOf('image'))
  })
  it('leaves a chosen picture, and chosen words, where they are', () => {
    const editor = open(words('A bell.'), picture, words('It rings.'))
    editor.commands.setNodeSelection(9)
    putIn(editor, [sound])
    editor.commands.setTextSelection({ from: 1, to: 7 })
    putIn(editor, [{ type: 'text', text: ' (PDF)' }])
    expect(seen(editor)).toEqual(['A bell (PDF).', 'image', 'audio', 'It rings.'])
  })
  it('stays in the cell of a table', () => {
    const cell = (text: string) => ({ type: 'tableCell', content: [words(text)] })
    const editor = open({ type: 'table', content: [{ type: 'tableRow', content: [cell('A bell.'), cell('A horn.')] }] })
    editor.commands.setTextSelection(11)
    for (const each of [picture, sound]) putIn(editor, [each])
    editor.commands.insertContent({ type: 'text', text: 'Here.' })
    const cells = (editor.getJSON() as JSONContent).content![0]!.content![0]!.content!
    expect(cells.map(({ content }) => content!.map(({ type }) => type))).toEqual([
      ['paragraph', 'image', 'audio', 'paragraph'],
      ['paragraph'],
    ])
    expect(JSON.stringify(cells[0])).toContain('Here.')
  })
  it('goes into an empty text', () => {
    const editor = open({ type: 'paragraph' })
    putIn(editor, [picture])
    putIn(editor, [film])
    editor.commands.insertContent({ type: 'text', text: 'It rings.' })
    expect(seen(editor).filter(Boolean)).toEqual(['image', 'video', 'It rings.'])
  })
})
