import { plainText, type Question } from '../../../core/question'
import { eachText } from '../../../core/kit/each-text'
import { childrenOf, isElement, textOf, within, type XmlElement } from '../../xml'

const word = /[\p{L}\p{N}]+/gu
/** What is no word of the item to anybody who reads it. */
const unread = new Set([
  'responseDeclaration',
  'outcomeDeclaration',
  'templateDeclaration',
  'templateProcessing',
  'responseProcessing',
  'stylesheet',
  'style',
  'script',
  'catalogInfo',
  'math',
  'printedVariable',
  'annotation',
])
const forOthers = (node: XmlElement) =>
  node.name === 'rubricBlock' && !/\b(candidate|scorer)\b/.test(node.attributes.view ?? 'candidate')

function wordsOf(node: XmlElement): string {
  if (unread.has(node.name) || forOthers(node)) return ''
  const { alt = '', hotspotLabel = '' } = node.attributes
  // Children that are words stand together; blocks part them.
  return [
    alt,
    hotspotLabel,
    node.children.map((child) => (isElement(child) ? ` ${wordsOf(child)} ` : child)).join(''),
  ].join(' ')
}

/** Lowered and raised digits are digits: H₂O is written as it comes. */
const folded = (text: string) => text.normalize('NFKC').toLowerCase()
const counted = (text: string) => new Set(folded(text).match(word) ?? [])

/** Letters and digits of a text run together: markup within a word makes no difference. */
const runTogether = (text: string) => folded(text).replace(/[^\p{L}\p{N}]+/gu, '')

/** What of an item is not in what was read of it. */
export interface Lost {
  /** Words that stand nowhere, each once. */
  words: string[]
  /** How many pictures, sounds, films and pieces of maths. */
  things: number
}

/**
 * Nothing is lost without a word: what an item shows is looked for in the questions that it has become.
 * @param texts what was read beside the questions, such as what they have in common
 * @param older of QTI 1.2 the item as it stands in its file
 */
export function lostOf(
  item: XmlElement,
  questions: readonly Question[],
  texts: readonly string[],
  older: XmlElement | null = null,
): Lost {
  const here: string[] = []
  let things = 0
  const keep = (text: string) => {
    const isMarkup = text.includes('<')
    if (isMarkup) things += text.match(/<(?:img|audio|video)\b|data-latex=/g)?.length ?? 0
    here.push(isMarkup || text.includes('&') ? plainText(text) : text)
    return text
  }
  for (const question of questions) {
    eachText(question, keep)
    if (question.kind === 'spot' && question.body.picture) things++
  }
  texts.forEach(keep)
  const all = here.join(' ')
  const have = counted(all)
  const shown = ['itemBody', 'modalFeedback'].flatMap((name) => childrenOf(item, name).map(wordsOf))
  const asked = counted([...shown, ...(older ? olderWords(older) : [])].join(' '))
  const missing = [...asked].filter((each) => !have.has(each))
  const whole = missing.length ? runTogether(all) : ''
  return { words: missing.filter((each) => !whole.includes(each)), things: Math.max(0, thingsIn(item) - things) }
}

/** Words of QTI 1.2 stand in materials, as HTML or not; those to others than candidates are left out, and told. */
const olderWords = (item: XmlElement): string[] =>
  ['presentation', 'itemfeedback'].flatMap((part) =>
    childrenOf(item, part).flatMap((each) =>
      ['mattext', 'matemtext'].flatMap((name) => within(each, name).map((text) => plainText(textOf(text)))),
    ),
  )

/** Pictures, sounds, films and maths that an item shows. */
function thingsIn(item: XmlElement): number {
  const shown = new Set(['img', 'object', 'audio', 'video', 'math'])
  const count = (node: XmlElement): number =>
    childrenOf(node).reduce((sum, child) => sum + (shown.has(child.name) ? 1 : count(child)), 0)
  return childrenOf(item, 'itemBody').reduce((sum, each) => sum + count(each), 0)
}
