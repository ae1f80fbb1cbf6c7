import type { Format } from '../format'
import { readMarkdown } from './read'

export const markdown: Format = {
  name: 'markdown',
  label: 'Markdown',
  endings: ['md', 'markdown', 'txt'],
  recognise: ({ text, name }) =>
    text.includes('\u0000') ? 'no' : /\.(md|markdown|txt)$/.test(name) ? 'surely' : 'perhaps',
  read: ({ text }) => readMarkdown(text),
}
