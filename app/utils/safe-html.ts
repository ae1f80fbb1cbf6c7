import DOMPurify from 'dompurify'
import { allowedAttributes, allowedTags } from '~~/core/question/allowed-html'

const mathTags = [
  'math',
  'semantics',
  'annotation',
  'mrow',
  'mi',
  'mo',
  'mn',
  'mtext',
  'ms',
  'mspace',
  'mfrac',
  'msqrt',
  'mroot',
  'msub',
  'msup',
  'msubsup',
  'munder',
  'mover',
  'munderover',
  'mtable',
  'mtr',
  'mtd',
  'mstyle',
  'mpadded',
  'mphantom',
  'menclose',
  'svg',
  'path',
  'line',
]
const options = {
  ALLOWED_TAGS: [...allowedTags, ...mathTags],
  // Class, style and the rest are KaTeX's: what people write has lost them when it was kept.
  ALLOWED_ATTR: [
    ...new Set([
      ...Object.values(allowedAttributes).flat(),
      'class',
      'style',
      'aria-hidden',
      'xmlns',
      'encoding',
      'mathvariant',
      'stretchy',
      'fence',
      'separator',
      'accent',
      'accentunder',
      'displaystyle',
      'scriptlevel',
      'columnalign',
      'rowspacing',
      'columnspacing',
      'height',
      'width',
      'depth',
      'voffset',
      'viewBox',
      'preserveAspectRatio',
      'd',
    ]),
  ],
}

/** A link opens beside the page: a paper that is being sat stays where it is. */
DOMPurify.addHook('afterSanitizeAttributes', (node) => {
  if (node.nodeName !== 'A' || !node.hasAttribute('href')) return
  node.setAttribute('target', '_blank')
  node.setAttribute('rel', 'noopener noreferrer')
})

/** HTML from people, cleaned again where it is shown. */
export function safeHtml(source: string): string {
  return DOMPurify.sanitize(source, options)
}
