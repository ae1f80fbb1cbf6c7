import { encode, type Format } from '../format'
import { readMarkdown } from './read'
import { unseenInMarkdown, writeMarkdown } from './write'

export const markdown: Format = {
  name: 'markdown',
  label: 'Markdown',
  endings: ['md', 'markdown', 'txt'],
  recognise: ({ name }) => (/\.(md|markdown)$/.test(name) ? 'surely' : 'perhaps'),
  read: ({ text }) => readMarkdown(text),
  write: {
    type: 'text/markdown; charset=utf-8',
    alone: true,
    unseen: unseenInMarkdown,
    bytes: (questions) => encode(writeMarkdown(questions)),
  },
}
